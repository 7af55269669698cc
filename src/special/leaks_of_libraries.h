#pragma once
#ifdef COULTER_SANITIZE
#include <sanitizer/lsan_interface.h>
#endif

namespace coulter {

/// While it lives the leak sanitizer lets pass what is forgotten: for single calls of libraries that are known to
/// forget some memory of their own. Nothing without the sanitizers.
#ifdef COULTER_SANITIZE
using LeaksOfLibraries = __lsan::ScopedDisabler;
#else
struct LeaksOfLibraries {};
#endif

} // namespace coulter
