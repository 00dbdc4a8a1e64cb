import { testBedOf } from "./bed-of-amp-for-tests";

testBedOf("wren-5");
