#include "data/netcdf_header.h"

#include <array>
#include <cstdint>
#include <fstream>
#include <string_view>
#include <vector>

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
        records_ = number();
        const std::uint64_t streamed = wide_ ? ~std::uint64_t{0} : 0xffffffff; // so many as the file has room for
        if (records_ == streamed) records_ = 0;
        return list(0x0a, [&] { return dimension(); }) && attributes() && list(0x0b, [&] { return variable(); }) &&
               hasNumbers();
    }

private:
    static constexpr std::array<std::uint64_t, 12> sizes{0, 1, 1, 2, 4, 4, 8, 1, 2, 4, 8, 8}; ///< of types in bytes

    /// Where a variable's numbers are, and how many bytes they take: of one record if it grows by records.
    struct Numbers {
        std::uint64_t begin = 0, bytes = 0;
        bool isRecord = false;
    };

    bool dimension() {
        if (!name()) return false;
        lengths_.push_back(number()); // 0: that of the records
        return true;
    }

    bool variable() {
        if (!name()) return false;
        const std::uint64_t dimensions = number();
        if (dimensions > left() / width()) return false;
        std::vector<std::uint64_t> lengths;
        for (std::uint64_t i = 0; i < dimensions; ++i) {
            const std::uint64_t id = number();
            if (id >= lengths_.size()) return false;
            lengths.push_back(lengths_[id]);
        }
        if (!attributes()) return false;
        const std::uint64_t type = bytes(4);
        number(); // its size, which counts for nothing where it is large
        Numbers numbers{bytes(offset_), 0, !lengths.empty() && lengths[0] == 0};
        if (type == 0 || type >= sizes.size()) return false;
        numbers.bytes = sizes[type];
        constexpr std::uint64_t withoutRecords = std::uint64_t{1} << 48; // no file says otherwise
        const std::uint64_t most = numbers.isRecord && records_ == 0 ? withoutRecords : size_;
        for (std::size_t i = numbers.isRecord ? 1 : 0; i < lengths.size(); ++i) {
            if (lengths[i] == 0 || lengths[i] > most / numbers.bytes) return false;
            numbers.bytes *= lengths[i];
        }
        numbers_.push_back(numbers);
        return true;
    }

    /// Whether the numbers of all variables are there.
    bool hasNumbers() const {
        std::uint64_t ofRecord = 0, inRecord = 0; // bytes, and variables
        for (const Numbers& each : numbers_) {
            if (each.isRecord) ofRecord += padded(each.bytes), ++inRecord;
        }
        for (const Numbers& each : numbers_) {
            std::uint64_t before = 0;
            if (each.isRecord) {
                if (records_ == 0) continue;
                const std::uint64_t step = inRecord == 1 ? each.bytes : ofRecord; // one alone is not padded
                if (records_ - 1 > size_ / step) return false;
                before = (records_ - 1) * step;
            }
            if (each.begin > size_ || before > size_ - each.begin || each.bytes > size_ - each.begin - before)
                return false;
        }
        return true;
    }

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
    std::uint64_t size_ = 0, at_ = 0, offset_ = 4, records_ = 0;
    std::vector<std::uint64_t> lengths_; ///< of dimensions
    std::vector<Numbers> numbers_;       ///< of variables
    bool wide_ = false;
};

} // namespace

bool hasSoundHeader(const std::filesystem::path& path) { return Walk(path).isSound(); }

} // namespace coulter
