#include "data/read_netcdf.h"

#include "data/file_trouble.h"
#include "data/netcdf_file.h"
#include "data/netcdf_header.h"
#include "data/netcdf_numbers.h"
#include "data/netcdf_probe.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/measured/measured_grid.h"
#include "formula/notation/units.h"
#include "special/leaks_of_libraries.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

using File = NetcdfFile;
using Trouble = FileTrouble;

constexpr std::size_t mostDirections = 3;
constexpr double mostPlaces = 1e7; // in one direction

struct Words {
    std::string unit, meaning;
};
Words wordsOf(const File& file, const File::Variable& variable) {
    Words words{file.text(variable, "units"), file.text(variable, "long_name")};
    if (words.meaning.empty()) words.meaning = file.text(variable, "standard_name");
    std::ranges::replace(words.meaning, '_', ' ');
    // "days since 2021-03-01" counts days, from a day that is told.
    if (const std::size_t since = words.unit.find(" since "); since != std::string::npos) {
        words.meaning += (words.meaning.empty() ? "" : " ") + words.unit.substr(since + 1);
        words.unit = words.unit.substr(0, since);
    }
    if (!words.unit.empty() && !isUnit(words.unit)) words.unit.clear();
    return words;
}

std::string listed(const std::vector<const File::Variable*>& variables) {
    constexpr std::size_t most = 12;
    std::string text;
    for (std::size_t i = 0; i < std::min(most, variables.size()); ++i)
        text += (text.empty() ? "" : ", ") + variables[i]->name;
    return variables.size() > most ? text + ", …" : text;
}

const File::Variable* named(const std::vector<File::Variable>& all, const std::string& name) {
    const auto at = std::ranges::find(all, name, &File::Variable::name);
    return at == all.end() ? nullptr : &*at;
}

/// The dimensions of a variable that hold more than one place; all of them if none does.
std::vector<int> directionsOf(const File& file, const File::Variable& variable) {
    std::vector<int> kept;
    for (const int id : variable.dimensions) {
        if (file.dimension(id).length > 1) kept.push_back(id);
    }
    return kept;
}

DataAxis axisOf(const File& file, const std::vector<File::Variable>& all, int id) {
    const File::Dimension dimension = file.dimension(id);
    if (static_cast<double>(dimension.length) > mostPlaces)
        throw Trouble{"There are " + roundedNumber(static_cast<double>(dimension.length), 3) + " places along “" +
                          dimension.name + "”, and a grid has at most " + roundedNumber(mostPlaces, 3) +
                          " in one direction.",
                      "take a part of it"};
    DataAxis axis;
    axis.name = dimension.name;
    const File::Variable* coordinate = named(all, dimension.name);
    if (!coordinate || !coordinate->isNumeric() || coordinate->dimensions != std::vector<int>{id}) {
        axis.isCounted = true;
        axis.places = evenPlaces(dimension.length, 0, 1);
        return axis;
    }
    const Words words = wordsOf(file, *coordinate);
    axis.unit = words.unit;
    axis.meaning = words.meaning;
    axis.places = std::make_shared<const std::vector<double>>(file.values(*coordinate));
    return axis;
}

/// Turns the places of a direction round if they descend; whether they do.
bool ascend(DataAxis& axis) {
    std::vector<double> places = *axis.places;
    const bool descends = places.size() > 1 && places.front() > places.back();
    if (descends) std::ranges::reverse(places);
    if (!std::ranges::all_of(places, [](double place) { return std::isfinite(place); }) ||
        std::ranges::adjacent_find(places, std::greater_equal<>{}) != places.end())
        throw Trouble{"The places along “" + axis.name + "” neither ascend nor descend throughout.", ""};
    if (descends) axis.places = std::make_shared<const std::vector<double>>(std::move(places));
    return descends;
}

/// Turns the values along a direction round.
void turn(std::vector<double>& values, const std::vector<DataAxis>& axes, std::size_t k) {
    std::size_t step = 1;
    for (std::size_t j = 0; j < k; ++j) step *= axes[j].places->size();
    const std::size_t n = axes[k].places->size();
    for (std::size_t begin = 0; begin < values.size(); begin += step * n) {
        for (std::size_t i = 0; i < n / 2; ++i) {
            const auto at = [&](std::size_t place) {
                return values.begin() + static_cast<std::ptrdiff_t>(begin + place * step);
            };
            std::swap_ranges(at(i), at(i) + static_cast<std::ptrdiff_t>(step), at(n - 1 - i));
        }
    }
}

/// Refuses what has no places in some direction, such as a file with no record yet.
void needNumbers(const File& file, const File::Variable& variable) {
    for (const int id : variable.dimensions) {
        if (const File::Dimension dimension = file.dimension(id); dimension.length == 0)
            throw Trouble{"“" + variable.name + "” has no numbers: there are no places along “" + dimension.name + "”.",
                          "write its records first"};
    }
}

DataTable gridOfVariable(const File& file, const std::vector<File::Variable>& all, const File::Variable& variable,
                         const std::filesystem::path& path) {
    needNumbers(file, variable);
    std::vector<int> directions = directionsOf(file, variable);
    if (directions.size() > mostDirections)
        throw Trouble{"“" + variable.name + "” runs in " + std::to_string(directions.size()) +
                          " directions, and three are read.",
                      "take a part of it"};
    DataTable table;
    const bool isFar = file.count(variable) > mostNumbersOfPage && directions.size() > 1;
    std::vector<double> values = isFar ? std::vector<double>{} : file.values(variable);
    std::ranges::reverse(directions);
    for (const int id : directions) table.axes.push_back(axisOf(file, all, id));
    std::vector<NetcdfDirection> far;
    for (std::size_t k = 0; k < table.axes.size(); ++k) {
        const bool turned = ascend(table.axes[k]);
        const auto dimension = std::ranges::find(variable.dimensions, directions[k]) - variable.dimensions.begin();
        far.push_back({static_cast<std::size_t>(dimension), table.axes[k].places->size(), turned});
        if (turned && !isFar) turn(values, table.axes, k);
    }
    if (isFar) table.far = numbersOfNetcdf(path, variable, std::move(far));
    const Words words = wordsOf(file, variable);
    table.columns.push_back(
        {variable.name, words.unit, words.meaning, std::make_shared<const std::vector<double>>(std::move(values))});
    return table;
}

/// A field on the mesh that it names, by the UGRID conventions (1.0): triangles and quadrilaterals.
DataTable meshOfVariable(const File& file, const std::vector<File::Variable>& all, const File::Variable& variable) {
    needNumbers(file, variable);
    const std::string topologyName = file.text(variable, "mesh");
    const File::Variable* topology = named(all, topologyName);
    if (!topology)
        throw Trouble{"“" + variable.name + "” is on a mesh, “" + topologyName + "”, which is not there.", ""};
    if (variable.dimensions.size() != 1)
        throw Trouble{"“" + variable.name + "” has several numbers at each place of its mesh.", "take one of them"};
    const std::string coordinates = file.text(*topology, "node_coordinates"),
                      faces = file.text(*topology, "face_node_connectivity");
    const std::size_t space = coordinates.find(' ');
    const File::Variable* x = named(all, coordinates.substr(0, space));
    const File::Variable* y = space == std::string::npos ? nullptr : named(all, coordinates.substr(space + 1));
    const File::Variable* corners = named(all, faces);
    if (!x || !y || !corners || !corners->isNumeric() || corners->dimensions.size() != 2)
        throw Trouble{"“" + topologyName + "” has no nodes or no faces.",
                      "a mesh names them by node_coordinates and face_node_connectivity"};
    std::vector<double> nodes = file.values(*corners);
    const std::size_t elements = file.dimension(corners->dimensions[0]).length,
                      width = file.dimension(corners->dimensions[1]).length;
    if (width < 3 || width > 4)
        throw Trouble{"“" + faces + "” has " + std::to_string(width) +
                          " nodes for each face; triangles and quadrilaterals are drawn.",
                      ""};
    const auto start = file.numbers(*corners, "start_index");
    DataTable table;
    auto mesh = std::make_shared<DataMesh>();
    mesh->unit = wordsOf(file, *x).unit;
    mesh->places = {std::make_shared<const std::vector<double>>(file.values(*x)),
                    std::make_shared<const std::vector<double>>(file.values(*y))};
    for (std::size_t k = 0; k < width; ++k) {
        std::vector<double> column(elements);
        for (std::size_t i = 0; i < elements; ++i) column[i] = nodes[i * width + k] - (start.empty() ? 0 : start[0]);
        mesh->corners.push_back(std::make_shared<const std::vector<double>>(std::move(column)));
    }
    const Words words = wordsOf(file, variable);
    std::vector<double> values = file.values(variable);
    if (mesh->places[0]->size() != mesh->places[1]->size() ||
        (values.size() != mesh->places[0]->size() && values.size() != elements))
        throw Trouble{"“" + variable.name + "” has " + std::to_string(values.size()) + " numbers for " +
                          std::to_string(mesh->places[0]->size()) + " nodes and " + std::to_string(elements) +
                          " faces.",
                      ""};
    table.mesh = std::move(mesh);
    table.columns.push_back(
        {variable.name, words.unit, words.meaning, std::make_shared<const std::vector<double>>(std::move(values))});
    return table;
}

/// All variables along one dimension as columns, its coordinate first.
DataTable tableAlong(const File& file, const std::vector<const File::Variable*>& variables, int id) {
    DataTable table;
    const std::string along = file.dimension(id).name;
    double numbers = 0;
    const auto add = [&](const File::Variable& variable) {
        needNumbers(file, variable);
        numbers += static_cast<double>(file.dimension(id).length);
        if (numbers > mostNumbersOfPage)
            throw Trouble{"It has more than " + roundedNumber(mostNumbersOfPage, 3) + " numbers.", "take a part of it"};
        const Words words = wordsOf(file, variable);
        table.columns.push_back({variable.name, words.unit, words.meaning,
                                 std::make_shared<const std::vector<double>>(file.values(variable))});
    };
    for (const bool coordinate : {true, false}) {
        for (const File::Variable* each : variables) {
            if (each->dimensions == std::vector<int>{id} && (each->name == along) == coordinate) add(*each);
        }
    }
    return table;
}

/// @param offered  gets the names of all fields that there are, if there are several
DataTable readOf(const File& file, const std::filesystem::path& path, const std::string& wanted,
                 std::vector<std::string>& offered) {
    const std::vector<File::Variable> all = file.variables();
    std::vector<const File::Variable*> fields;
    std::size_t most = 0;
    for (const File::Variable& each : all) {
        if (!each.isNumeric() || each.dimensions.empty()) continue;
        fields.push_back(&each);
        most = std::max(most, directionsOf(file, each).size());
    }
    if (fields.empty()) throw Trouble{"It has no variable with numbers.", ""};
    // On meshes those that say so; else what has two directions or more.
    std::vector<const File::Variable*> onMeshes;
    std::ranges::copy_if(fields, std::back_inserter(onMeshes),
                         [&](const File::Variable* each) { return !file.text(*each, "mesh").empty(); });
    for (const File::Variable* each : onMeshes.empty() ? fields : onMeshes) {
        if (!onMeshes.empty() || directionsOf(file, *each).size() > 1) offered.push_back(each->name);
    }
    if (!wanted.empty()) {
        const auto at = std::ranges::find(fields, wanted, [](const File::Variable* each) { return each->name; });
        if (at == fields.end())
            throw Trouble{"It has no variable “" + wanted + "”; it has " + listed(fields) + ".", "name one of these"};
        const File::Variable& variable = **at;
        if (!file.text(variable, "mesh").empty()) return meshOfVariable(file, all, variable);
        if (directionsOf(file, variable).empty()) throw Trouble{"“" + wanted + "” is a single number.", ""};
        return gridOfVariable(file, all, variable, path);
    }
    if (onMeshes.size() == 1) return meshOfVariable(file, all, *onMeshes.front());
    if (onMeshes.size() > 1)
        throw Trouble{"It holds several fields: " + listed(onMeshes) + ".",
                      "name one behind it: , variable \"" + onMeshes.front()->name + "\""};
    if (most < 2) return tableAlong(file, fields, fields.back()->dimensions[0]);
    std::vector<const File::Variable*> largest;
    std::ranges::copy_if(fields, std::back_inserter(largest),
                         [&](const File::Variable* each) { return directionsOf(file, *each).size() == most; });
    if (largest.size() > 1)
        throw Trouble{"It holds several fields: " + listed(largest) + ".",
                      "name one behind it: , variable \"" + largest.front()->name + "\""};
    return gridOfVariable(file, all, *largest.front(), path);
}

} // namespace

TableRead readNetcdf(const std::filesystem::path& path, const std::string& variable) {
    if (!hasSoundHeader(path))
        return refusedFile("The file is damaged, or ends too early: what it announces at its beginning is not there.");
    // A file that is damaged makes netCDF 4.9 and HDF5 1.10 forget what they had of it by then.
    [[maybe_unused]] const LeaksOfLibraries allowed;
    const auto lock = lockNetcdf();
    if (!survivesOpening(path)) return refusedFile("The file is damaged: the library for netCDF-4 cannot open it.");
    return readVariable("netCDF", [&](std::vector<std::string>& variables) {
        const File file(path);
        return readOf(file, path, variable, variables);
    });
}

} // namespace coulter
