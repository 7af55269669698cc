#include "data/netcdf_header.h"

#include <array>
#include <cstdint>
#include <fstream>
#include <string_view>

namespace coulter {
namespace {

/// Walks through a header; anything that leads out of the file ends it.
class Walk {
public:
    explicit Walk(const std::filesystem::path& path) : file_(path, std::ios::binary) {
        std::error_code error;
        size_ = std::filesystem::file_size(path, error);
        if (error) size_ = 0;
    }

    bool isSound() {
        std::array<char, 4> magic{};
        file_.read(magic.data(), magic.size());
        at_ = magic.size();
        if (!file_ || std::string_view(magic.data(), 3) != "CDF") return true;
        const int version = magic[3];
        wide_ = version == 5;
        offset_ = version == 1 ? 4 : 8;
        number(); // of records
        return list(0x0a, [&] { return name() && skip(width()); }) && attributes() && list(0x0b, [&] {
                   if (!name()) return false;
                   const std::uint64_t dimensions = number();
                   return dimensions <= left() / width() && skip(dimensions * width()) && attributes() &&
                          skip(4 + width() + offset_);
               });
    }

private:
    std::uint64_t width() const { return wide_ ? 8 : 4; }
    std::uint64_t left() const { return at_ < size_ ? size_ - at_ : 0; }
    std::uint64_t bytes(std::uint64_t count) {
        std::uint64_t value = 0;
        for (std::uint64_t i = 0; i < count; ++i) value = value << 8U | static_cast<std::uint8_t>(file_.get());
        at_ += count;
        return value;
    }
    std::uint64_t number() { return bytes(width()); }
    bool skip(std::uint64_t count) {
        if (count > left()) return false;
        at_ += count;
        file_.seekg(static_cast<std::streamoff>(at_));
        return static_cast<bool>(file_);
    }
    static std::uint64_t padded(std::uint64_t count) { return (count + 3) / 4 * 4; }
    bool name() {
        const std::uint64_t length = number();
        return length <= left() && skip(padded(length));
    }
    bool attributes() {
        return list(0x0c, [&] {
            if (!name()) return false;
            static constexpr std::array<std::uint64_t, 12> sizes{0, 1, 1, 2, 4, 4, 8, 1, 2, 4, 8, 8};
            const std::uint64_t type = bytes(4), count = number();
            return type > 0 && type < sizes.size() && count <= left() && skip(padded(count * sizes[type]));
        });
    }
    /// A tag and so many entries; both are zero where there is none.
    template <class Entry> bool list(std::uint64_t tag, const Entry& entry) {
        const std::uint64_t found = bytes(4), count = number();
        if (!file_ || (found != tag && !(found == 0 && count == 0)) || count > left()) return false;
        for (std::uint64_t i = 0; i < count; ++i) {
            if (!entry() || !file_) return false;
        }
        return true;
    }

    std::ifstream file_;
    std::uint64_t size_ = 0, at_ = 0, offset_ = 4;
    bool wide_ = false;
};

} // namespace

bool hasSoundHeader(const std::filesystem::path& path) { return Walk(path).isSound(); }

} // namespace coulter
