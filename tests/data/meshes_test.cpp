#include "made_files.h"

#include "data/read_file.h"
#include "special/leaks_of_libraries.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <cstring>
#include <nettle/base64.h>
#include <random>
#include <zlib.h>

using namespace coulter;

namespace {

/// How numbers are written into a file in VTK's XML format.
struct Way {
    bool isBinary = false, isAppended = false, isRaw = false, isPacked = false, isWide = false, isBig = false;
    std::size_t block = 1 << 15; ///< bytes of each that are packed
};

std::string base64(const std::string& bytes) {
    std::string out(BASE64_ENCODE_RAW_LENGTH(bytes.size()), '\0');
    base64_encode_raw(out.data(), bytes.size(), reinterpret_cast<const std::uint8_t*>(bytes.data()));
    return out;
}

/// Writes a grid of two squares of which one is divided, with all of its arrays in one way.
class Writer {
public:
    explicit Writer(const Way& way) : way_(way) {}

    std::string file(const std::string& pointData = "", const std::string& cellData = "") {
        std::string out = "<?xml version=\"1.0\"?>\n<VTKFile type=\"UnstructuredGrid\" version=\"1.0\" byte_order=\"" +
                          std::string(way_.isBig ? "BigEndian" : "LittleEndian") + "\" header_type=\"" +
                          (way_.isWide ? "UInt64" : "UInt32") + "\"" +
                          (way_.isPacked ? " compressor=\"vtkZLibDataCompressor\"" : "") + ">\n<UnstructuredGrid>\n";
        out += "<Piece NumberOfPoints=\"6\" NumberOfCells=\"4\"><PointData>" +
               array<double>("head", {0, 1, 2, 10, 11, 12}) +
               array<float>("velocity", {1, 2, 0, 3, 4, 0, 5, 6, 0, 7, 8, 0, 9, 10, 0, 11, 12, 0}, 3) + pointData +
               "</PointData><CellData>" + array<std::int32_t>("layer", {7, 8, 9, 99}) + cellData +
               "</CellData><Points>" +
               array<float>("Points", {0, 0, 5, 1, 0, 5, 2, 0, 5, 0, 1, 5, 1, 1, 5, 2, 1, 5}, 3) + "</Points><Cells>" +
               array<std::int64_t>("connectivity", {0, 1, 4, 3, 1, 2, 5, 1, 5, 4, 0, 1}) +
               array<std::int64_t>("offsets", {4, 7, 10, 12}) + array<std::uint8_t>("types", {9, 5, 5, 3}) +
               "</Cells></Piece></UnstructuredGrid>";
        if (way_.isAppended)
            out += "<AppendedData encoding=\"" + std::string(way_.isRaw ? "raw" : "base64") + "\">\n_" + appended_ +
                   "</AppendedData>";
        return out + "</VTKFile>\n";
    }

    template <class T> std::string array(const char* name, std::vector<T> numbers, int components = 1) {
        static const char* const types[] = {"UInt8", "Int32", "Int64", "Float32", "Float64"};
        const char* type = types[sizeof(T) == 1                    ? 0
                                 : std::is_same_v<T, std::int32_t> ? 1
                                 : std::is_same_v<T, std::int64_t> ? 2
                                 : std::is_same_v<T, float>        ? 3
                                                                   : 4];
        std::string out = "<DataArray type=\"" + std::string(type) + "\" Name=\"" + name + "\" NumberOfComponents=\"" +
                          std::to_string(components) + "\" format=\"";
        if (!way_.isBinary && !way_.isAppended) {
            out += "ascii\">\n";
            for (const T number : numbers) out += std::to_string(+number) + " ";
            return out + "</DataArray>";
        }
        std::string bytes;
        for (const T number : numbers) add(bytes, number);
        const std::string stored = way_.isPacked ? packed(bytes) : plain(bytes);
        if (!way_.isAppended) return out + "binary\">" + stored + "</DataArray>";
        out += "appended\" offset=\"" + std::to_string(appended_.size()) + "\"/>";
        appended_ += stored;
        return out;
    }

private:
    template <class T> void add(std::string& bytes, T number) const {
        char one[sizeof(T)];
        std::memcpy(one, &number, sizeof one);
        if (way_.isBig) std::reverse(one, one + sizeof one);
        bytes.append(one, sizeof one);
    }
    void addSize(std::string& bytes, std::size_t size) const {
        if (way_.isWide)
            add(bytes, static_cast<std::uint64_t>(size));
        else
            add(bytes, static_cast<std::uint32_t>(size));
    }
    std::string coded(const std::string& bytes) const { return way_.isRaw ? bytes : base64(bytes); }
    std::string plain(const std::string& bytes) const {
        std::string all;
        addSize(all, bytes.size());
        return coded(all + bytes);
    }
    std::string packed(const std::string& bytes) const {
        std::string header, body;
        const std::size_t blocks = (bytes.size() + way_.block - 1) / way_.block;
        addSize(header, blocks);
        addSize(header, way_.block);
        addSize(header, bytes.size() % way_.block);
        for (std::size_t i = 0; i < blocks; ++i) {
            const std::string part = bytes.substr(i * way_.block, way_.block);
            uLongf length = compressBound(part.size());
            std::string out(length, '\0');
            compress(reinterpret_cast<Bytef*>(out.data()), &length, reinterpret_cast<const Bytef*>(part.data()),
                     part.size());
            addSize(header, length);
            body += out.substr(0, length);
        }
        return coded(header) + coded(body);
    }

    Way way_;
    std::string appended_;
};

TableRead readText(const std::string& text, const std::string& variable = "") {
    const auto path = made::pathOf("mesh.vtu");
    made::write(path, text);
    return readDataFile(path, {}, variable);
}

std::vector<Way> ways() {
    std::vector<Way> all{{}};
    for (const bool packed : {false, true}) {
        for (const bool wide : {false, true}) {
            for (const bool big : {false, true}) {
                all.push_back({.isBinary = true, .isPacked = packed, .isWide = wide, .isBig = big, .block = 40});
                for (const bool raw : {false, true})
                    all.push_back({.isAppended = true, .isRaw = raw, .isPacked = packed, .isWide = wide, .isBig = big});
            }
        }
    }
    return all;
}

} // namespace

TEST_CASE("a mesh in VTK's XML format is the same in all the ways that its numbers are kept") {
    for (const Way& way : ways()) {
        CAPTURE(way.isBinary, way.isAppended, way.isRaw, way.isPacked, way.isWide, way.isBig);
        const std::string text = Writer(way).file();
        const TableRead several = readText(text);
        CHECK_FALSE(several.table);
        CHECK(several.variables == std::vector<std::string>{"head", "velocity 1", "velocity 2", "velocity 3", "layer"});
        const TableRead head = readText(text, "head");
        INFO(head.problem.sentence);
        REQUIRE(head.table);
        REQUIRE(head.table->mesh);
        const DataMesh& mesh = *head.table->mesh;
        CHECK(*mesh.places[0] == std::vector<double>{0, 1, 2, 0, 1, 2});
        CHECK(*mesh.places[1] == std::vector<double>{0, 0, 0, 1, 1, 1});
        REQUIRE(mesh.corners.size() == 4);
        CHECK(*mesh.corners[0] == std::vector<double>{0, 1, 1}); // a line is no element
        CHECK((*mesh.corners[3])[0] == 3);
        CHECK(std::isnan((*mesh.corners[3])[1]));
        CHECK(*head.table->columns[0].numbers == std::vector<double>{0, 1, 2, 10, 11, 12});
        CHECK(*readText(text, "velocity 2").table->columns[0].numbers == std::vector<double>{2, 4, 6, 8, 10, 12});
        CHECK(*readText(text, "layer").table->columns[0].numbers == std::vector<double>{7, 8, 9});
    }
}

TEST_CASE("what is wrong with a mesh's file is said in a sentence") {
    const auto said = [](const std::string& text, const std::string& variable = "head") {
        return readText(text, variable).problem.sentence;
    };
    const std::string good = Writer({}).file();
    const auto with = [&](const std::string& from, const std::string& to) {
        std::string text = good;
        const std::size_t at = text.find(from);
        REQUIRE(at != std::string::npos);
        return text.replace(at, from.size(), to);
    };
    CHECK(said(good, "pressure").find("no variable “pressure”") != std::string::npos);
    CHECK(said(with("UnstructuredGrid", "ImageData")).find("no unstructured grid") != std::string::npos);
    CHECK(said(with("9 5 5 3", "9 5 12 3")).find("Cell 3 is of kind 12") != std::string::npos);
    CHECK(said(with("4 7 10 12", "4 7 10 13")).find("cell 4 has no nodes") != std::string::npos);
    CHECK(said(with("4 7 10 12", "4 7 12")).find("unlike numbers") != std::string::npos);
    CHECK(said(with("0 1 4 3", "0 1 x 3")).find("“connectivity” cannot be read") != std::string::npos);
    CHECK(said(with("7 8 9 99", "7 8 9")).find("“layer” has 3 numbers for 4 elements") != std::string::npos);
    // Words that are no UTF-8 are Latin-1.
    const TableRead latin = readText(with("Name=\"layer\"", "Name=\"H\xf6he\""), "Höhe");
    CHECK(latin.table.has_value());
    CHECK(said(with("</Piece>", "")).find("no XML") != std::string::npos);
    CHECK(said(with("header_type=\"UInt32\"", "compressor=\"vtkLZ4DataCompressor\"")).find("packed in a way") !=
          std::string::npos);
    std::string space = good; // no plane holds its points
    const std::size_t at = space.find("5.000000 2.000000 1.000000");
    const std::size_t last = space.rfind("5.000000");
    REQUIRE((at != std::string::npos || last != std::string::npos));
    space.replace(last, 8, "6.000000");
    CHECK(said(space).find("lies in space") != std::string::npos);
}

TEST_CASE("damaged meshes are refused in a sentence, or read as far as they say") {
    std::mt19937 random(13);
    for (const Way& way : ways()) {
        const std::string whole = Writer(way).file();
        for (int i = 0; i < 60; ++i) {
            std::string bytes = whole;
            if (i % 3 == 0) bytes.resize(random() % bytes.size());
            for (int k = 0; k < 1 + i % 4 && !bytes.empty(); ++k)
                bytes[random() % bytes.size()] = static_cast<char>(random());
            const TableRead read = readText(bytes, "head");
            if (!read.table) CHECK_FALSE(read.problem.sentence.empty());
        }
    }
}

TEST_CASE("a mesh by the UGRID conventions has numbers at nodes or faces, and counts from where it says") {
    [[maybe_unused]] const LeaksOfLibraries allowed; // HDF5 keeps what it has freed for itself
    const auto path = made::pathOf("ugrid.nc");
    for (const int first : {0, 1}) {
        int file = 0, nodes = 0, faces = 0, corners = 0, mesh = 0, x = 0, y = 0, face = 0, head = 0, layer = 0;
        REQUIRE(nc_create(path.c_str(), NC_NETCDF4 | NC_CLOBBER, &file) == NC_NOERR);
        nc_def_dim(file, "nodes", 5, &nodes);
        nc_def_dim(file, "faces", 2, &faces);
        nc_def_dim(file, "corners", 4, &corners);
        const int shape[] = {faces, corners};
        nc_def_var(file, "dam", NC_INT, 0, nullptr, &mesh);
        nc_def_var(file, "dam_x", NC_DOUBLE, 1, &nodes, &x);
        nc_def_var(file, "dam_y", NC_DOUBLE, 1, &nodes, &y);
        nc_def_var(file, "dam_faces", NC_INT, 2, shape, &face);
        nc_def_var(file, "head", NC_DOUBLE, 1, &nodes, &head);
        nc_def_var(file, "layer", NC_DOUBLE, 1, &faces, &layer);
        const auto text = [&](int var, const char* name, const char* words) {
            nc_put_att_text(file, var, name, std::strlen(words), words);
        };
        text(mesh, "cf_role", "mesh_topology");
        text(mesh, "node_coordinates", "dam_x dam_y");
        text(mesh, "face_node_connectivity", "dam_faces");
        text(x, "units", "m");
        text(head, "mesh", "dam");
        text(head, "location", "node");
        text(head, "units", "m");
        text(layer, "mesh", "dam");
        text(layer, "location", "face");
        const int fill = -9;
        nc_put_att_int(file, face, "_FillValue", NC_INT, 1, &fill);
        nc_put_att_int(file, face, "start_index", NC_INT, 1, &first);
        nc_enddef(file);
        const double xs[] = {0, 1, 1, 0, 2}, ys[] = {0, 0, 1, 1, 0.5}, heads[] = {1, 2, 3, 4, 5}, layers[] = {10, 20};
        const int nodesOf[] = {first, first + 1, first + 2, first + 3, first + 1, first + 4, first + 2, fill};
        nc_put_var_double(file, x, xs);
        nc_put_var_double(file, y, ys);
        nc_put_var_double(file, head, heads);
        nc_put_var_double(file, layer, layers);
        nc_put_var_int(file, face, nodesOf);
        REQUIRE(nc_close(file) == NC_NOERR);
        const TableRead several = readDataFile(path);
        CHECK(several.variables == std::vector<std::string>{"head", "layer"});
        const TableRead read = readDataFile(path, {}, "head");
        INFO(read.problem.sentence);
        REQUIRE(read.table);
        REQUIRE(read.table->mesh);
        CHECK(read.table->mesh->unit == "m");
        CHECK(*read.table->mesh->corners[1] == std::vector<double>{1, 4});
        CHECK(std::isnan((*read.table->mesh->corners[3])[1]));
        CHECK(read.table->columns[0].unit == "m");
        CHECK(*readDataFile(path, {}, "layer").table->columns[0].numbers == std::vector<double>{10, 20});
    }
}
