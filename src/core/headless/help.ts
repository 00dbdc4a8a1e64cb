/** What the headless door says of itself. */

export const HELP = `Scutum's engine, without the interface. One JSON document on standard output; errors as JSON on standard error, exit 2.

  npm run --silent engine -- op    amp.cir [--mains 117] [--without V4,V5] [--set R7=open --set C3=leak:47k …] [--meter 10M]
  npm run --silent engine -- ohm   amp.cir RED BLACK        nodes; 0 is the chassis
  npm run --silent engine -- ac    amp.cir --in g1 --level 0.1 --freq 400 [--loop R17]
  npm run --silent engine -- tran  amp.cir --in g1 --level 0.8 --freq 330 --for 50m --probe g4,out [--pulsed]
  npm run --silent engine -- rank  amp.cir readings.csv [more.csv …] [--top 5]   header point,kind,value,unit; kinds dcv acv ma ohm leak gm observe; acv without input, freq, level is ripple
  npm run --silent engine -- settle amp.cir [chart.csv] [readings.csv …] --mains 117   windings, resistances and tube strengths fitted to figures that are right; header point,value; without a file the chart of the circuit
  npm run --silent engine -- spice amp.cir                  text that a general SPICE runs as it is
  npm run --silent engine -- spectrum file.wav --mains 50   what a recording holds, named with its figures

All take --mains, --without and --set. Levels: rms for ac, peak for tran; the source is ideal, through a capacitor.
--set   R: open, short, OHMS        C: open, short, leak:OHMS, FARADS     tube: dead, weak:0.4, gassy:2u, hk:100k, short:gk, short:gs:100k, swap:gk, type:12AU7, heater-open
        V2.g=open (a pin)           rectifier: weak:3, half, weakside:5, dead, through, winding-short, upper:dead, lower:through   control: 0 to 1, wiper-open
        mains=0.9 (of what is entered)
        switch: open, closed, 1, 2  transformer: open, open:2, shorted:OHMS   board leak: b3~g1=20M
--meter ohms of the meter, at one point at a time; "open" for none.   --loop loop gain through that resistor.
--pulsed the rectifier pulse by pulse instead of its average.
Exit codes: 0 done, 1 did not converge, 2 the call or the file is wrong.
`;
