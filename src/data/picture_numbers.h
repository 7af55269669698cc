#pragma once
#include "data/read_table.h"

#include <array>

namespace coulter {

/// The numbers of a picture as its file stores them, neither scaled nor corrected.
struct PictureNumbers {
    std::size_t width = 0, height = 0, pages = 1;
    std::vector<std::string> channels; ///< their names
    std::vector<double> numbers;       ///< of the wanted channel, the top row first, page after page
    std::array<double, 2> pitch{};     ///< mm from dot to dot to the right and downwards; 0: the file says none
    std::string format;                ///< "PNG, 16 bits"
    std::string trouble;               ///< why there are none
    std::string way;                   ///< out of it
};

/// @param bytes  of the whole file
/// @param channel  which one is wanted; empty: the only one
PictureNumbers readPng(std::string_view bytes, const std::string& channel);
PictureNumbers readTiff(std::string_view bytes, const std::string& channel);

/// Which channel is wanted; the number of channels, with a trouble, if it is not there or not said.
std::size_t channelOf(PictureNumbers& picture, const std::string& channel);
/// Whether a page holds so many numbers; else the trouble is said.
bool fitsPage(PictureNumbers& picture);

/// A picture as a grid whose rows run upwards.
TableRead tableOfPicture(PictureNumbers picture);

} // namespace coulter
