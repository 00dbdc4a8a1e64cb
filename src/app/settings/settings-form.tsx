"use client";
import { fixed, words } from "@/core/language/language";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { CAPACITOR_SCHOOLS, SCHOOL_WORDS } from "@/core/shop/capacitor-school";
import type { Settings } from "@/core/shop/settings";
import type { BackupState } from "@/server/daily-backup";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import type { Unit } from "@/core/quantity/unit";
import { SAFETY_NOTE } from "@/core/safety/end-of-job-tests";
import { Field, Section } from "@/ui/forms/section";
import { MoneyFields, moneyFields, readMoney } from "./money-fields";

const plain = (value: number, unit: Unit) => formatQuantity(value, unit, 2).replace(/\s/g, "");

/** Fields of the form whose name is not that of the setting. */
const FIELD: Record<string, "backupFolder" | "backupKeep"> = { "backups.folder": "backupFolder", "backups.keep": "backupKeep" };

export function SettingsForm({ settings, backups, mayChange }: { settings: Settings; backups?: BackupState; mayChange: boolean }) {
  const router = useRouter();
  const [says, setSays] = useState<{ text: string; bad: boolean }>();
  const { register, handleSubmit, setError, formState } = useForm({
    values: {
      shopName: settings.shopName,
      shopAddress: settings.shopAddress,
      technicians: settings.technicians.join(", "),
      safeVolts: String(settings.safeVolts),
      proofHours: String(settings.proofHours),
      meterMinutes: String(settings.meterMinutes),
      meterSource: settings.meterSource,
      mainsVolts: String(settings.mainsVolts),
      timeZone: settings.timeZone,
      decimal: settings.decimal,
      tubeWord: settings.tubeWord,
      mainsWord: settings.mainsWord,
      symbols: settings.symbols,
      capacitorSchool: settings.capacitorSchool,
      currency: settings.currency,
      earthBondOhms: plain(settings.limits.earthBondOhms, "Ω"),
      insulationOhms: plain(settings.limits.insulationOhms, "Ω"),
      leakageAmps: plain(settings.limits.leakageAmps, "A"),
      backupFolder: settings.backups.folder,
      backupKeep: String(settings.backups.keep),
      ...moneyFields(settings.money),
    },
  });
  const errors = formState.errors;
  const store = handleSubmit(async (v) => {
    setSays(undefined);
    let sound = true;
    const read = (
      field: "safeVolts" | "proofHours" | "meterMinutes" | "mainsVolts" | "earthBondOhms" | "insulationOhms" | "leakageAmps" | "backupKeep",
      unit?: Unit,
    ) => {
      const parsed = parseQuantity(v[field], { unit, decimal: settings.decimal });
      if (parsed.ok) return parsed.quantity.value;
      sound = false;
      setError(field, { message: `${parsed.why}; accepted: ${parsed.accepted}` });
      return 0;
    };
    const next: Settings = {
      shopName: v.shopName.trim(),
      shopAddress: v.shopAddress.trim(),
      technicians: v.technicians
        .split(",")
        .map((t) => t.trim())
        .filter(Boolean),
      safeVolts: read("safeVolts", "V"),
      proofHours: read("proofHours"),
      meterMinutes: read("meterMinutes"),
      meterSource: v.meterSource.trim(),
      mainsVolts: read("mainsVolts", "V"),
      timeZone: v.timeZone.trim(),
      decimal: v.decimal,
      tubeWord: v.tubeWord,
      mainsWord: v.mainsWord,
      symbols: v.symbols,
      capacitorSchool: v.capacitorSchool,
      currency: v.currency.trim(),
      money: readMoney(v, (field, message) => {
        sound = false;
        setError(field, { message });
      }),
      limits: {
        earthBondOhms: read("earthBondOhms", "Ω"),
        insulationOhms: read("insulationOhms", "Ω"),
        leakageAmps: read("leakageAmps", "A"),
      },
      backups: { folder: v.backupFolder.trim(), keep: read("backupKeep") },
    };
    if (!sound) return;
    try {
      const response = await fetch("/api/v1/settings", {
        method: "PUT",
        headers: { "content-type": "application/json" },
        body: JSON.stringify(next),
      });
      const answer = (await response.json()) as { error?: string; details?: { field?: string; message: string }[] };
      if (response.ok) {
        setSays({ text: "Stored.", bad: false });
        // Other words or another decimal sign: everything is drawn anew.
        const spoken = (x: Settings) => [x.tubeWord, x.mainsWord, x.decimal].join();
        return spoken(next) === spoken(settings) ? router.refresh() : window.location.reload();
      }
      for (const d of answer.details ?? []) {
        const field =
          FIELD[d.field ?? ""] ?? (d.field?.replace(/^(limits|money)\./, "").replace(/\..*$/, "") as keyof typeof v | undefined);
        if (field && field in v) setError(field, { message: d.message });
      }
      setSays({ text: answer.error ?? "The server refused it.", bad: true });
    } catch {
      setSays({ text: "The server is not reached. What you typed is still here; try again.", bad: true });
    }
  });
  return (
    <form onSubmit={store}>
      {!mayChange && <p className="mb-3 text-sm">Only the owner of the shop changes these.</p>}
      <fieldset disabled={!mayChange}>
        <Section title="The shop">
          <div className="grid gap-3 sm:grid-cols-2">
            <Field label="Name" error={errors.shopName?.message}>
              <input className="input w-full" {...register("shopName")} />
            </Field>
            <Field label="Address, as on the report" error={errors.shopAddress?.message}>
              <input className="input w-full" {...register("shopAddress")} />
            </Field>
            <Field label="Technicians, by initials" error={errors.technicians?.message}>
              <input className="input w-full" {...register("technicians")} />
            </Field>
            <Field label="Currency" error={errors.currency?.message}>
              <input className="input w-24" {...register("currency")} />
            </Field>
          </div>
        </Section>
        <Section title="Safety" hint={SAFETY_NOTE.split(". ")[1] + "."}>
          <div className="grid gap-3 sm:grid-cols-3">
            <Field label="Safe voltage of a reservoir, V" error={errors.safeVolts?.message}>
              <input className="input w-full text-right font-mono" {...register("safeVolts")} />
            </Field>
            <Field label="PROVEN DEAD holds for, hours" error={errors.proofHours?.message}>
              <input className="input w-full text-right font-mono" {...register("proofHours")} />
            </Field>
            <Field label="A proved meter counts for, minutes" error={errors.meterMinutes?.message}>
              <input className="input w-full text-right font-mono" {...register("meterMinutes")} />
            </Field>
            <Field label="Own source for proving a meter, by name" error={errors.meterSource?.message}>
              <input className="input w-full" placeholder="else 9 V or more" {...register("meterSource")} />
            </Field>
            <Field label={words("Usual mains, V")} error={errors.mainsVolts?.message}>
              <input className="input w-full text-right font-mono" {...register("mainsVolts")} />
            </Field>
            <Field label="Earth bond, at most" error={errors.earthBondOhms?.message}>
              <input className="input w-full text-right font-mono" {...register("earthBondOhms")} />
            </Field>
            <Field label="Insulation, at least" error={errors.insulationOhms?.message}>
              <input className="input w-full text-right font-mono" {...register("insulationOhms")} />
            </Field>
            <Field label="Leakage, at most" error={errors.leakageAmps?.message}>
              <input className="input w-full text-right font-mono" {...register("leakageAmps")} />
            </Field>
          </div>
        </Section>
        <Section title="Words and numbers">
          <div className="grid gap-3 sm:grid-cols-3">
            <Field label="Time zone of the shop" error={errors.timeZone?.message}>
              <input className="input w-full" placeholder="Europe/Oslo" {...register("timeZone")} />
            </Field>
            <Field label="Decimal sign">
              <select className="select w-full" {...register("decimal")}>
                <option value=".">point, 12.5</option>
                <option value=",">comma, 12,5</option>
              </select>
            </Field>
            <Field label={words("Word for tube")}>
              <select className="select w-full" {...register("tubeWord")}>
                <option>{words("tube")}</option>
                <option>valve</option>
              </select>
            </Field>
            <Field label={words("Word for mains")}>
              <select className="select w-full" {...register("mainsWord")}>
                <option>{words("mains")}</option>
                <option>line</option>
              </select>
            </Field>
            <Field label="Resistors are drawn as">
              <select className="select w-full" {...register("symbols")}>
                <option value="boxes">boxes</option>
                <option value="zigzags">zigzags</option>
              </select>
            </Field>
            <Field label="Old electrolytics, untested">
              <select className="select w-full" {...register("capacitorSchool")}>
                {CAPACITOR_SCHOOLS.map((s) => (
                  <option key={s} value={s}>
                    {SCHOOL_WORDS[s]}
                  </option>
                ))}
              </select>
            </Field>
          </div>
        </Section>
        <MoneyFields register={register} errors={errors} currency={settings.currency} />
        {backups && (
          <Section
            title="Backups"
            hint="Made once a day while the shop runs, and read back before they count. They help only if they are on another disk than the shop."
          >
            <div className="grid gap-3 sm:grid-cols-3">
              <Field label="Folder (empty: backups, in the data folder)" className="sm:col-span-2" error={errors.backupFolder?.message}>
                <input className="input w-full" placeholder={backups.place} {...register("backupFolder")} />
              </Field>
              <Field label="Kept (0: none are made)" error={errors.backupKeep?.message}>
                <input className="input w-full text-right font-mono" {...register("backupKeep")} />
              </Field>
            </div>
            <p className="mt-2 text-sm" suppressHydrationWarning>
              {backups.last
                ? `Last backup: ${new Date(backups.last.at).toLocaleString("en-GB")}, ${fixed(backups.last.bytes / 1e6, 1)} MB, ${backups.last.path}`
                : `There is none in ${backups.place} yet.`}
            </p>
            {backups.failure && (
              <p role="alert" className="mt-1 text-sm font-bold text-error">
                ▲ The last try failed: {backups.failure}
              </p>
            )}
          </Section>
        )}
        <div className="flex items-center gap-3">
          {mayChange && <button className="btn btn-primary">Store the settings</button>}
          {says && (
            <p role={says.bad ? "alert" : "status"} className={says.bad ? "text-error" : ""}>
              {says.text}
            </p>
          )}
        </div>
      </fieldset>
    </form>
  );
}
