#include "data/person_folders.h"

#include <cstdlib>

namespace coulter {
namespace {

namespace fs = std::filesystem;

fs::path folderIn(const char* variable) { // the specification ignores what is not absolute
    const char* const value = std::getenv(variable);
    return value && *value == '/' ? fs::path(value) : fs::path();
}

fs::path own(const char* variable, const char* atHome) {
    if (const fs::path named = folderIn(variable); !named.empty()) return named / "coulter";
    const fs::path home = folderIn("HOME");
    return home.empty() ? home : home / atHome / "coulter";
}

} // namespace

fs::path stateFolder() { return own("XDG_STATE_HOME", ".local/state"); }
fs::path cacheFolder() { return own("XDG_CACHE_HOME", ".cache"); }

} // namespace coulter
