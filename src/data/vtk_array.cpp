#include "data/vtk_array.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cstring>
#include <nettle/base64.h>
#include <zlib.h>

namespace coulter {
namespace {

/// A kind of number, its bytes, and how it is read.
struct NumberKind {
    std::string_view name;
    std::size_t size;
    double (*read)(const std::uint8_t*);
};

template <class T> double readAs(const std::uint8_t* bytes) {
    T value;
    std::memcpy(&value, bytes, sizeof value);
    return static_cast<double>(value);
}

constexpr std::array<NumberKind, 10> kinds{{{"Int8", 1, readAs<std::int8_t>},
                                            {"UInt8", 1, readAs<std::uint8_t>},
                                            {"Int16", 2, readAs<std::int16_t>},
                                            {"UInt16", 2, readAs<std::uint16_t>},
                                            {"Int32", 4, readAs<std::int32_t>},
                                            {"UInt32", 4, readAs<std::uint32_t>},
                                            {"Int64", 8, readAs<std::int64_t>},
                                            {"UInt64", 8, readAs<std::uint64_t>},
                                            {"Float32", 4, readAs<float>},
                                            {"Float64", 8, readAs<double>}}};

/// Characters of base 64 up to the end of a run of them; what was padded ends a group.
std::optional<std::string> fromBase64(std::string_view text, std::size_t leastBytes) {
    base64_decode_ctx decoder;
    base64_decode_init(&decoder);
    std::string bytes;
    for (std::size_t i = 0; i < text.size() && bytes.size() < leastBytes; ++i) {
        std::uint8_t out[BASE64_DECODE_LENGTH(1)];
        std::size_t length = sizeof out;
        if (base64_decode_update(&decoder, &length, out, 1, text.data() + i) != 1) return std::nullopt;
        bytes.append(reinterpret_cast<const char*>(out), length);
    }
    return bytes;
}

/// Sizes at the beginning of what is stored.
class Sizes {
public:
    Sizes(std::string_view bytes, const VtkStorage& storage) : bytes_(bytes), storage_(storage) {}
    static std::size_t width(const VtkStorage& storage) { return storage.isWide ? 8 : 4; }
    std::optional<std::uint64_t> at(std::size_t index) const {
        const std::size_t n = width(storage_);
        if (bytes_.size() < (index + 1) * n) return std::nullopt;
        std::array<std::uint8_t, 8> one{};
        std::memcpy(one.data(), bytes_.data() + index * n, n);
        if (storage_.isSwapped) std::reverse(one.begin(), one.begin() + static_cast<std::ptrdiff_t>(n));
        std::uint64_t value = 0;
        if (n == 8)
            std::memcpy(&value, one.data(), 8);
        else {
            std::uint32_t small = 0;
            std::memcpy(&small, one.data(), 4);
            value = small;
        }
        return value;
    }

private:
    std::string_view bytes_;
    const VtkStorage& storage_;
};

std::string_view withoutBlanks(std::string_view text) {
    const auto blank = [](char c) { return c == ' ' || c == '\n' || c == '\r' || c == '\t'; };
    while (!text.empty() && blank(text.front())) text.remove_prefix(1);
    while (!text.empty() && blank(text.back())) text.remove_suffix(1);
    return text;
}

/// Bytes of a block that is stored as such or in base 64, of at most so many.
std::optional<std::string> plainBytes(std::string_view stored, bool isRaw, const VtkStorage& storage,
                                      std::size_t most) {
    const std::size_t header = Sizes::width(storage);
    std::string all;
    if (isRaw) {
        all = std::string(stored.substr(0, header));
    } else {
        auto first = fromBase64(stored, header);
        if (!first) return std::nullopt;
        all = std::move(*first);
    }
    const auto size = Sizes(all, storage).at(0);
    if (!size || *size > most) return std::nullopt;
    if (isRaw) {
        if (stored.size() < header + *size) return std::nullopt;
        return std::string(stored.substr(header, *size));
    }
    // The size is coded with what follows, or for itself: then it ends with a filling.
    const std::size_t letters = (header + 2) / 3 * 4;
    if (stored.size() >= letters && stored[letters - 1] == '=') {
        auto body = fromBase64(stored.substr(letters), *size);
        if (!body || body->size() < *size) return std::nullopt;
        body->resize(*size);
        return body;
    }
    const auto whole = fromBase64(stored, header + *size);
    if (!whole || whole->size() < header + *size) return std::nullopt;
    return whole->substr(header, *size);
}

/// The same of blocks that zlib packed.
std::optional<std::string> unpackedBytes(std::string_view stored, bool isRaw, const VtkStorage& storage,
                                         std::size_t most) {
    const std::size_t n = Sizes::width(storage);
    const auto headerOf = [&](std::size_t bytes) -> std::optional<std::string> {
        return isRaw ? std::optional(std::string(stored.substr(0, bytes))) : fromBase64(stored, bytes);
    };
    auto header = headerOf(3 * n);
    if (!header) return std::nullopt;
    const auto blocks = Sizes(*header, storage).at(0), blockSize = Sizes(*header, storage).at(1),
               lastSize = Sizes(*header, storage).at(2);
    if (!blocks || !blockSize || !lastSize) return std::nullopt;
    if (*blocks == 0) return std::string();
    if (*blockSize > most || *blocks > most || *blocks * std::max<std::uint64_t>(1, *blockSize) > most + *blockSize)
        return std::nullopt;
    const std::size_t headerSize = (3 + *blocks) * n;
    header = headerOf(headerSize);
    if (!header || header->size() < headerSize) return std::nullopt;
    const Sizes sizes(*header, storage);
    std::uint64_t packed = 0;
    for (std::size_t i = 0; i < *blocks; ++i) {
        packed += *sizes.at(3 + i);
        if (packed > stored.size()) return std::nullopt;
    }
    std::string body;
    if (isRaw) {
        if (stored.size() < headerSize + packed) return std::nullopt;
        body = std::string(stored.substr(headerSize, packed));
    } else { // the header is coded for itself
        const std::size_t letters = (headerSize + 2) / 3 * 4;
        if (stored.size() < letters) return std::nullopt;
        auto decoded = fromBase64(stored.substr(letters), packed);
        if (!decoded || decoded->size() < packed) return std::nullopt;
        body = std::move(*decoded);
    }
    std::string out;
    std::size_t at = 0;
    for (std::size_t i = 0; i < *blocks; ++i) {
        uLongf length = i + 1 == *blocks && *lastSize > 0 ? *lastSize : *blockSize;
        if (length > most || out.size() + length > most) return std::nullopt;
        const std::size_t begin = out.size(), from = *sizes.at(3 + i);
        out.resize(begin + length);
        if (uncompress(reinterpret_cast<Bytef*>(out.data() + begin), &length,
                       reinterpret_cast<const Bytef*>(body.data() + at), from) != Z_OK ||
            begin + length != out.size())
            return std::nullopt;
        at += from;
    }
    return out;
}

std::optional<std::vector<double>> written(std::string_view text, std::size_t most) {
    std::vector<double> numbers;
    for (text = withoutBlanks(text); !text.empty(); text = withoutBlanks(text)) {
        double number = 0;
        const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
        if (error != std::errc{} || numbers.size() >= most) return std::nullopt;
        numbers.push_back(number);
        text.remove_prefix(static_cast<std::size_t>(end - text.data()));
    }
    return numbers;
}

} // namespace

std::optional<std::vector<double>> vtkNumbers(const pugi::xml_node& array, const VtkStorage& storage,
                                              std::size_t most) {
    const std::string_view format = array.attribute("format").as_string("ascii");
    if (format == "ascii") return written(array.child_value(), most);
    const auto kind =
        std::ranges::find(kinds, std::string_view(array.attribute("type").as_string()), &NumberKind::name);
    if (kind == kinds.end()) return std::nullopt;
    std::string_view stored = withoutBlanks(array.child_value());
    bool isRaw = false;
    if (format == "appended") {
        const auto offset = array.attribute("offset").as_ullong();
        if (offset > storage.appended.size()) return std::nullopt;
        stored = storage.appended.substr(offset);
        isRaw = storage.isAppendedRaw;
    } else if (format != "binary") {
        return std::nullopt;
    }
    const std::size_t mostBytes = most * kind->size;
    const auto bytes = storage.isPacked ? unpackedBytes(stored, isRaw, storage, mostBytes)
                                        : plainBytes(stored, isRaw, storage, mostBytes);
    if (!bytes || bytes->size() % kind->size != 0) return std::nullopt;
    std::vector<double> numbers;
    numbers.reserve(bytes->size() / kind->size);
    for (std::size_t i = 0; i < bytes->size(); i += kind->size) {
        std::array<std::uint8_t, 8> one{};
        std::memcpy(one.data(), bytes->data() + i, kind->size);
        if (storage.isSwapped) std::reverse(one.begin(), one.begin() + static_cast<std::ptrdiff_t>(kind->size));
        numbers.push_back(kind->read(one.data()));
    }
    return numbers;
}

} // namespace coulter
