#include "data/tiff_source.h"

#include "formula/compile/columns.h"

#include <algorithm>
#include <cstring>

namespace coulter {
namespace {

tmsize_t takeBytes(thandle_t handle, void* into, tmsize_t size) {
    auto* source = static_cast<TiffSource*>(handle);
    const std::uint64_t left = source->at < source->bytes.size() ? source->bytes.size() - source->at : 0;
    const auto count = std::min<std::uint64_t>(left, size > 0 ? static_cast<std::uint64_t>(size) : 0);
    if (count > 0) std::memcpy(into, source->bytes.data() + source->at, count);
    source->at += count;
    return static_cast<tmsize_t>(count);
}
tmsize_t writeNothing(thandle_t, void*, tmsize_t) { return 0; }

tmsize_t readBack(thandle_t handle, void* into, tmsize_t size) {
    auto* sink = static_cast<TiffSink*>(handle);
    TiffSource source{sink->bytes, sink->at};
    const tmsize_t count = takeBytes(&source, into, size);
    sink->at = source.at;
    return count;
}
tmsize_t putBytes(thandle_t handle, void* from, tmsize_t size) {
    auto* sink = static_cast<TiffSink*>(handle);
    if (size <= 0) return 0;
    const auto end = sink->at + static_cast<std::uint64_t>(size);
    if (end > sink->bytes.size()) sink->bytes.resize(end);
    std::memcpy(sink->bytes.data() + sink->at, from, static_cast<std::size_t>(size));
    sink->at = end;
    return size;
}

template <class Bytes> toff_t seek(thandle_t handle, toff_t offset, int whence) {
    auto* bytes = static_cast<Bytes*>(handle);
    bytes->at = whence == SEEK_SET ? offset : whence == SEEK_CUR ? bytes->at + offset : bytes->bytes.size() + offset;
    return bytes->at;
}
template <class Bytes> toff_t sizeOf(thandle_t handle) { return static_cast<Bytes*>(handle)->bytes.size(); }
int closeNothing(thandle_t) { return 0; }
int saySomething(TIFF*, void*, const char*, const char*, va_list) { return 1; } // said by us, in a sentence

template <class Bytes> Tiff open(Bytes& bytes, const char* mode, TIFFReadWriteProc read, TIFFReadWriteProc write) {
    TIFFOpenOptions* options = TIFFOpenOptionsAlloc();
    TIFFOpenOptionsSetErrorHandlerExtR(options, saySomething, nullptr);
    TIFFOpenOptionsSetWarningHandlerExtR(options, saySomething, nullptr);
    TIFFOpenOptionsSetMaxSingleMemAlloc(options, static_cast<tmsize_t>(mostNumbersOfPage) * 32);
    Tiff tiff(TIFFClientOpenExt("", mode, &bytes, read, write, seek<Bytes>, closeNothing, sizeOf<Bytes>, nullptr,
                                nullptr, options));
    TIFFOpenOptionsFree(options);
    return tiff;
}

} // namespace

Tiff openTiff(TiffSource& source) { return open(source, "rm", takeBytes, writeNothing); }
Tiff startTiff(TiffSink& sink) { return open(sink, "wl", readBack, putBytes); } // the same bytes on every machine

} // namespace coulter
