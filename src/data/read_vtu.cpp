#include "data/read_vtu.h"

#include "data/file_trouble.h"
#include "data/vtk_array.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"

#include <algorithm>
#include <bit>
#include <cmath>

namespace coulter {
namespace {

using Trouble = FileTrouble;

constexpr auto mostNumbers = static_cast<std::size_t>(mostNumbersOfPage);
const std::string damaged = "The file is damaged: ";

/// Numbers of all pieces, under their name, at nodes or at elements.
struct Numbers {
    std::string name;
    bool ofElements = false;
    std::size_t components = 1;
    std::vector<double> values;
};

class Reader {
public:
    explicit Reader(const std::string& bytes) {
        // What is appended may be bytes, which are no XML.
        std::string_view text = bytes;
        std::string xml;
        if (const std::size_t begin = text.find("<AppendedData"); begin != std::string_view::npos) {
            const std::size_t open = text.find('>', begin), end = text.rfind("</AppendedData>");
            if (open == std::string_view::npos || end == std::string_view::npos || end < open)
                throw Trouble{damaged + "what is appended to it does not end.", ""};
            storage_.isAppendedRaw = text.substr(begin, open - begin).find("\"raw\"") != std::string_view::npos;
            const std::string_view inside = text.substr(open + 1, end - open - 1);
            const std::size_t mark = inside.find('_');
            if (mark == std::string_view::npos) throw Trouble{damaged + "nothing is appended to it.", ""};
            storage_.appended = inside.substr(mark + 1);
            xml = std::string(text.substr(0, begin)) + std::string(text.substr(end + 15));
        } else {
            xml = bytes;
        }
        const pugi::xml_parse_result parsed = document_.load_buffer(xml.data(), xml.size());
        if (!parsed) throw Trouble{damaged + "it is no XML from byte " + std::to_string(parsed.offset) + " on.", ""};
        const pugi::xml_node root = document_.child("VTKFile");
        if (std::string_view(root.attribute("type").as_string()) != "UnstructuredGrid")
            throw Trouble{"It holds no unstructured grid.", "save it as one, in a .vtu file"};
        const bool isBig = std::string_view(root.attribute("byte_order").as_string()) == "BigEndian";
        storage_.isSwapped = isBig != (std::endian::native == std::endian::big);
        storage_.isWide = std::string_view(root.attribute("header_type").as_string()) == "UInt64";
        const std::string_view packer = root.attribute("compressor").as_string();
        storage_.isPacked = !packer.empty();
        if (storage_.isPacked && packer != "vtkZLibDataCompressor")
            throw Trouble{"It is packed in a way that is not read.", "save it packed by zlib, or not packed"};
        for (const pugi::xml_node piece : root.child("UnstructuredGrid").children("Piece")) readPiece(piece);
        if (corners_.empty()) throw Trouble{"It has no triangles or quadrilaterals.", ""};
    }

    std::vector<std::string> names() const {
        std::vector<std::string> all;
        for (const Numbers& each : numbers_) {
            for (std::size_t k = 0; k < each.components; ++k) all.push_back(nameOf(each, k));
        }
        return all;
    }

    DataTable table(const std::string& wanted) const {
        const std::vector<std::string> all = names();
        if (all.empty()) throw Trouble{"It has a mesh and no numbers on it.", ""};
        std::string list;
        for (const std::string& name : all) list += (list.empty() ? "" : ", ") + name;
        if (wanted.empty() && all.size() > 1)
            throw Trouble{"It holds several fields: " + list + ".",
                          "name one behind it: , variable \"" + all.front() + "\""};
        for (const Numbers& each : numbers_) {
            for (std::size_t k = 0; k < each.components; ++k) {
                if (!wanted.empty() && nameOf(each, k) != wanted) continue;
                return tableOf(each, k);
            }
        }
        throw Trouble{"It has no variable “" + wanted + "”; it has " + list + ".", "name one of these"};
    }

private:
    static std::string nameOf(const Numbers& numbers, std::size_t component) {
        return numbers.components == 1 ? numbers.name : numbers.name + " " + std::to_string(component + 1);
    }

    std::vector<double> read(const pugi::xml_node& array, const std::string& what) {
        auto numbers = vtkNumbers(array, storage_, mostNumbers);
        if (!numbers) throw Trouble{damaged + "the numbers of " + what + " cannot be read.", ""};
        count_ += numbers->size();
        if (count_ > mostNumbers)
            throw Trouble{"It has more than " + roundedNumber(mostNumbersOfPage, 3) +
                              " numbers, which is all that a page holds.",
                          "take a part of it"};
        return std::move(*numbers);
    }

    static pugi::xml_node named(const pugi::xml_node& parent, const char* name) {
        return parent.find_child_by_attribute("DataArray", "Name", name);
    }

    void readPiece(const pugi::xml_node& piece) {
        const std::vector<double> points = read(piece.child("Points").child("DataArray"), "its points");
        if (points.size() % 3 != 0) throw Trouble{damaged + "its points have no three coordinates each.", ""};
        const double before = static_cast<double>(points_.size() / 3);
        points_.insert(points_.end(), points.begin(), points.end());
        const pugi::xml_node cells = piece.child("Cells");
        const std::vector<double> nodes = read(named(cells, "connectivity"), "“connectivity”"),
                                  ends = read(named(cells, "offsets"), "“offsets”"),
                                  kinds = read(named(cells, "types"), "“types”");
        if (ends.size() != kinds.size())
            throw Trouble{damaged + "it has unlike numbers of cells and kinds of cells.", ""};
        std::vector<std::size_t> kept; // cells that are triangles or quadrilaterals
        double begin = 0;
        for (std::size_t i = 0; i < ends.size(); ++i) {
            if (!(ends[i] >= begin && ends[i] <= static_cast<double>(nodes.size())))
                throw Trouble{damaged + "cell " + std::to_string(i + 1) + " has no nodes.", ""};
            std::vector<double> corners;
            for (auto k = static_cast<std::size_t>(begin); k < static_cast<std::size_t>(ends[i]); ++k)
                corners.push_back(nodes[k] + before);
            begin = ends[i];
            constexpr double vertex = 1, vertices = 2, line = 3, lines = 4, triangle = 5, polygon = 7, pixel = 8,
                             quad = 9;
            const double kind = kinds[i];
            if (kind == vertex || kind == vertices || kind == line || kind == lines) continue;
            const bool isTriangle = corners.size() == 3 && (kind == triangle || kind == polygon);
            const bool isQuad = corners.size() == 4 && (kind == quad || kind == polygon || kind == pixel);
            if (!isTriangle && !isQuad)
                throw Trouble{"Cell " + std::to_string(i + 1) + " is of kind " + roundedNumber(kind, 6) + " with " +
                                  std::to_string(corners.size()) + " nodes; triangles and quadrilaterals are drawn.",
                              "save it with cells of kinds 5 and 9"};
            if (isTriangle) corners.push_back(std::nan(""));
            if (kind == pixel) std::swap(corners[2], corners[3]);
            corners_.insert(corners_.end(), corners.begin(), corners.end());
            kept.push_back(i);
        }
        for (const bool ofElements : {false, true}) {
            for (const pugi::xml_node array :
                 piece.child(ofElements ? "CellData" : "PointData").children("DataArray")) {
                if (std::string_view(array.attribute("type").as_string()) == "String") continue;
                const std::string name = asUtf8(array.attribute("Name").as_string());
                take({name, ofElements, std::max<std::size_t>(1, array.attribute("NumberOfComponents").as_uint(1)),
                      read(array, "“" + name + "”")},
                     ofElements ? kept : std::vector<std::size_t>{}, ofElements ? ends.size() : points.size() / 3);
            }
        }
        ++pieces_;
    }

    /// @param kept  rows that count; of nodes all
    void take(Numbers numbers, const std::vector<std::size_t>& kept, std::size_t rows) {
        if (numbers.values.size() != rows * numbers.components)
            throw Trouble{damaged + "“" + numbers.name + "” has " + std::to_string(numbers.values.size()) +
                              " numbers for " + std::to_string(rows) + (numbers.ofElements ? " elements." : " nodes."),
                          ""};
        if (numbers.ofElements) {
            std::vector<double> some;
            for (const std::size_t row : kept) {
                for (std::size_t k = 0; k < numbers.components; ++k)
                    some.push_back(numbers.values[row * numbers.components + k]);
            }
            numbers.values = std::move(some);
        }
        const auto same = std::ranges::find_if(numbers_, [&](const Numbers& each) {
            return each.name == numbers.name && each.ofElements == numbers.ofElements;
        });
        if (same == numbers_.end() && pieces_ == 0) {
            numbers_.push_back(std::move(numbers));
        } else if (same != numbers_.end() && same->components == numbers.components) {
            same->values.insert(same->values.end(), numbers.values.begin(), numbers.values.end());
        } else {
            throw Trouble{"Its pieces have unlike numbers: “" + numbers.name + "”.", "save it in one piece"};
        }
    }

    DataTable tableOf(const Numbers& numbers, std::size_t component) const {
        DataTable table;
        const std::size_t nodes = points_.size() / 3;
        // The plane that it lies in.
        const auto isFlat = [&](std::size_t k) {
            for (std::size_t i = 0; i < nodes; ++i) {
                if (points_[3 * i + k] != points_[k]) return false;
            }
            return true;
        };
        const std::size_t flat = isFlat(2) ? 2 : isFlat(1) ? 1 : isFlat(0) ? 0 : 3;
        if (flat == 3)
            throw Trouble{"Its mesh lies in space, and meshes in a plane are drawn.", "save a section of it"};
        auto mesh = std::make_shared<DataMesh>();
        for (std::size_t k = 0, into = 0; k < 3; ++k) {
            if (k == flat) continue;
            std::vector<double> places(nodes);
            for (std::size_t i = 0; i < nodes; ++i) places[i] = points_[3 * i + k];
            mesh->places[into++] = std::make_shared<const std::vector<double>>(std::move(places));
        }
        const bool triangles = [&] {
            for (std::size_t i = 3; i < corners_.size(); i += 4) {
                if (!std::isnan(corners_[i])) return false;
            }
            return true;
        }();
        for (std::size_t k = 0; k < (triangles ? 3 : 4); ++k) {
            std::vector<double> column(corners_.size() / 4);
            for (std::size_t i = 0; i < column.size(); ++i) column[i] = corners_[4 * i + k];
            mesh->corners.push_back(std::make_shared<const std::vector<double>>(std::move(column)));
        }
        table.mesh = std::move(mesh);
        std::vector<double> values;
        for (std::size_t i = component; i < numbers.values.size(); i += numbers.components)
            values.push_back(std::isfinite(numbers.values[i]) ? numbers.values[i] : std::nan(""));
        table.columns.push_back(
            {nameOf(numbers, component), "", "", std::make_shared<const std::vector<double>>(std::move(values))});
        return table;
    }

    pugi::xml_document document_;
    VtkStorage storage_;
    std::vector<double> points_, corners_; ///< three and four numbers each
    std::vector<Numbers> numbers_;
    std::size_t count_ = 0, pieces_ = 0;
};

} // namespace

TableRead readVtu(const std::string& bytes, const std::string& variable) {
    return readVariable("VTK XML", [&](std::vector<std::string>& variables) {
        const Reader reader(bytes);
        variables = reader.names();
        return reader.table(variable);
    });
}

} // namespace coulter
