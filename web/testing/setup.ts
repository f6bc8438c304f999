import { configure } from "@testing-library/react";

// A machine that does several things at once is no reason to fail: what is waited for may take a while.
configure({ asyncUtilTimeout: 10_000 });
