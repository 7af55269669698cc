#pragma once
#include <memory>
#include <string>
#include <string_view>
#include <tiffio.h>

namespace coulter {

struct CloseTiff {
    void operator()(TIFF* tiff) const { TIFFClose(tiff); }
};
using Tiff = std::unique_ptr<TIFF, CloseTiff>;

/// Bytes in the memory as libtiff reads them; they outlive what is opened.
struct TiffSource {
    std::string_view bytes;
    std::uint64_t at = 0;
};
/// Null if they are no TIFF file. Nothing is printed.
Tiff openTiff(TiffSource& source);

/// Bytes in the memory that libtiff writes; they outlive what is opened.
struct TiffSink {
    std::string bytes;
    std::uint64_t at = 0;
};
Tiff startTiff(TiffSink& sink);

} // namespace coulter
