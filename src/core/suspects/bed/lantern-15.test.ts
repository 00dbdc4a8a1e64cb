import { testBedOf } from "./bed-of-amp-for-tests";

testBedOf("lantern-15");
