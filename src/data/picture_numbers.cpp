#include "data/picture_numbers.h"

#include "data/file_trouble.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/measured/measured_grid.h"

#include <algorithm>
#include <cmath>

namespace coulter {

std::size_t channelOf(PictureNumbers& picture, const std::string& channel) {
    if (channel.empty() && picture.channels.size() == 1) return 0;
    const auto at = std::ranges::find(picture.channels, channel);
    if (at != picture.channels.end()) return static_cast<std::size_t>(at - picture.channels.begin());
    std::string names;
    for (const std::string& name : picture.channels) names += (names.empty() ? "" : ", ") + name;
    picture.trouble = channel.empty() ? "It is a picture in colours: each dot has several numbers, " + names + "."
                                      : "It has no channel “" + channel + "”; it has " + names + ".";
    picture.way = "name one behind it: , variable \"" + picture.channels.front() + "\"";
    return picture.channels.size();
}

bool fitsPage(PictureNumbers& picture) {
    const double count =
        static_cast<double>(picture.width) * static_cast<double>(picture.height) * static_cast<double>(picture.pages);
    if (count <= mostNumbersOfPage) return true;
    picture.trouble = "It has " + std::to_string(picture.width) + " × " + std::to_string(picture.height) +
                      (picture.pages > 1 ? " × " + std::to_string(picture.pages) : "") + " dots, and a page holds " +
                      roundedNumber(mostNumbersOfPage, 3) + " numbers.";
    picture.way = "take a part of it";
    return false;
}

TableRead tableOfPicture(PictureNumbers picture) {
    if (!picture.trouble.empty()) {
        TableRead read = refusedFile(std::move(picture.trouble), std::move(picture.way));
        if (picture.channels.size() > 1) read.variables = std::move(picture.channels);
        return read;
    }
    DataTable table;
    const std::size_t width = picture.width, height = picture.height;
    const auto axis = [&](std::size_t count, double pitch) {
        DataAxis made;
        made.isCounted = !(pitch > 0);
        made.unit = made.isCounted ? "" : "mm";
        made.places = evenPlaces(count, 0, made.isCounted ? 1 : pitch);
        return made;
    };
    table.axes = {axis(width, picture.pitch[0]), axis(height, picture.pitch[1])};
    if (picture.pages > 1) table.axes.push_back(axis(picture.pages, 0));
    for (std::size_t page = 0; page < picture.pages; ++page) { // the top row comes last
        const auto begin = picture.numbers.begin() + static_cast<std::ptrdiff_t>(page * width * height);
        for (std::size_t row = 0; row < height / 2; ++row)
            std::swap_ranges(begin + static_cast<std::ptrdiff_t>(row * width),
                             begin + static_cast<std::ptrdiff_t>((row + 1) * width),
                             begin + static_cast<std::ptrdiff_t>((height - 1 - row) * width));
    }
    for (double& number : picture.numbers) {
        if (!std::isfinite(number)) number = std::nan("");
    }
    table.columns.push_back({"", "", "", std::make_shared<const std::vector<double>>(std::move(picture.numbers))});
    TableRead read;
    read.encoding = picture.format;
    if (picture.channels.size() > 1) read.variables = std::move(picture.channels);
    read.table = std::move(table);
    return read;
}

} // namespace coulter
