#include "data/read_file.h"

#include "data/digest.h"
#include "data/file_state.h"
#include "data/file_trouble.h"
#include "data/picture_numbers.h"
#include "data/read_netcdf.h"
#include "data/read_vtu.h"
#include "data/tile_file.h"
#include "formula/base/text.h"

#include <algorithm>
#include <array>
#include <cstdio>
#include <fstream>

namespace coulter {
namespace {

using namespace std::string_view_literals;

enum class FileKind { Table, Png, Tiff, Netcdf, Vtu };

struct Beginning {
    std::string_view bytes;
    FileKind kind;
};
constexpr std::array<Beginning, 9> beginnings{{{"\x89PNG\r\n\x1a\n"sv, FileKind::Png},
                                               {"II*\0"sv, FileKind::Tiff},
                                               {"MM\0*"sv, FileKind::Tiff},
                                               {"II+\0"sv, FileKind::Tiff},
                                               {"MM\0+"sv, FileKind::Tiff},
                                               {"CDF\1"sv, FileKind::Netcdf},
                                               {"CDF\2"sv, FileKind::Netcdf},
                                               {"CDF\5"sv, FileKind::Netcdf},
                                               {"\x89HDF\r\n\x1a\n"sv, FileKind::Netcdf}}};

FileKind kindOf(std::ifstream& file) {
    std::array<char, 8> first{};
    file.read(first.data(), first.size());
    const std::string_view seen(first.data(), static_cast<std::size_t>(std::max<std::streamsize>(0, file.gcount())));
    file.clear();
    file.seekg(0);
    const auto at = std::ranges::find_if(beginnings, [&](const Beginning& b) { return seen.starts_with(b.bytes); });
    if (at != beginnings.end()) return at->kind;
    // XML may begin with a declaration and comments.
    std::string start(1000, '\0');
    file.read(start.data(), static_cast<std::streamsize>(start.size()));
    file.clear();
    file.seekg(0);
    return start.find("<VTKFile") != std::string::npos ? FileKind::Vtu : FileKind::Table;
}

/// What is read from memory: such a file is not much larger than its numbers.
constexpr std::uintmax_t largestInMemory = 1'000'000'000;

TableRead readInMemory(std::ifstream& file, const std::filesystem::path& path, FileKind kind,
                       const std::string& variable) {
    std::error_code error;
    const std::uintmax_t size = std::filesystem::file_size(path, error);
    if (error || size > largestInMemory) return refusedFile("It is larger than a gigabyte.", "take a part of it");
    std::string bytes(static_cast<std::size_t>(size), '\0');
    file.read(bytes.data(), static_cast<std::streamsize>(size));
    if (file.gcount() != static_cast<std::streamsize>(size)) return refusedFile("The file cannot be read to its end.");
    TableRead read = kind == FileKind::Vtu
                         ? readVtu(bytes, variable)
                         : tableOfPicture(kind == FileKind::Png ? readPng(bytes, variable) : readTiff(bytes, variable));
    if (!read.table) return read;
    Digest digest;
    digest.add(bytes);
    read.table->digest = digest.text();
    return read;
}

/// What is read where it is looked at is shown while its bytes are still read for their digest. That begins when the
/// file has been looked into: the child that looks first is not to be born beside a thread at work.
template <class Read>
TableRead readWithDigest(const std::filesystem::path& path, const std::stop_token& stop, const Read& readOf) {
    const auto state = stateOf(path);
    TableRead read = readOf(path);
    if (!read.table) return read;
    const FileDigest digest = comingDigest(path);
    if (stateOf(path) != state) return refusedFile("It has changed while it was read.", "read it again");
    if (!read.table->far && !digest.wait(stop)) return refusedFile("Reading was stopped.", "read it again");
    read.table->digest = digest;
    read.table->source = path.filename().string();
    return read;
}

} // namespace

TableRead readDataFile(const std::filesystem::path& path, const TableShape& shape, const std::string& variable,
                       const std::stop_token& stop) {
    std::error_code error;
    if (std::filesystem::is_directory(path, error)) return readWithDigest(path, stop, readTiles);
    // Opening a pipe would wait for somebody to write into it, for ever.
    if (std::filesystem::exists(path, error) && !std::filesystem::is_regular_file(path, error))
        return refusedFile("It is no file with contents, but a device, a pipe or a socket.",
                           "write its rows into a file");
    std::ifstream file(path, std::ios::binary);
    const FileKind kind = file ? kindOf(file) : FileKind::Table;
    TableRead read;
    switch (kind) {
    case FileKind::Table:
        if (!variable.empty() && std::filesystem::exists(path, error))
            return refusedFile("It is a table of separated values, which has columns and no variables.",
                               "leave out “variable”");
        return readTableFile(path, shape, stop);
    case FileKind::Png:
    case FileKind::Tiff:
    case FileKind::Vtu: read = readInMemory(file, path, kind, variable); break;
    case FileKind::Netcdf:
        return readWithDigest(path, stop, [&](const std::filesystem::path& of) { return readNetcdf(of, variable); });
    }
    if (read.table) read.table->source = path.filename().string();
    return read;
}

} // namespace coulter
