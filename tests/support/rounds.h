#pragma once

/// So many rounds of a test by chance: a fifth of them under the sanitizers, which look for other mistakes than wrong
/// results and are ten times as slow.
constexpr int rounds(int all) {
#ifdef COULTER_SANITIZE
    return (all + 4) / 5;
#else
    return all;
#endif
}
