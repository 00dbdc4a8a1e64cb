import { testBedOf } from "./bed-of-amp-for-tests";

testBedOf("halberd-120");
