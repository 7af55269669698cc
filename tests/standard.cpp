// Nothing of its own: the standard headers and Catch are precompiled with it, once for all test programs.
