#pragma once
#include "composition/figure.h"

#include <optional>
#include <string>
#include <string_view>

namespace coulter {

// One file for each format: pdf_format.cpp, svg_format.cpp, png_format.cpp, tiff_format.cpp,
// eps_format.cpp. See ExportFormat for what
// each does.

std::string writePdf(const Figure& figure, const std::string& recipe);
bool isPdf(std::string_view bytes);
std::optional<std::string> recipeInPdf(std::string_view bytes);

std::string writeSvgFigure(const Figure& figure, const std::string& recipe);
bool isSvg(std::string_view bytes);
std::optional<std::string> recipeInSvg(std::string_view bytes);

std::string writePng(const Figure& figure, const std::string& recipe);
bool isPng(std::string_view bytes);
std::optional<std::string> recipeInPng(std::string_view bytes);

std::string writeTiff(const Figure& figure, const std::string& recipe);
bool isTiff(std::string_view bytes);
std::optional<std::string> recipeInTiff(std::string_view bytes);

std::string writeEps(const Figure& figure, const std::string& recipe);
bool isEps(std::string_view bytes);
std::optional<std::string> recipeInEps(std::string_view bytes);

} // namespace coulter
