#include "drawing/cairo_painter.h"
#include "files/formats.h"
#include "files/pdf_attachment.h"

namespace coulter {
namespace {

constexpr const char* attachmentName = "recipe.coulter";

} // namespace

std::string writePdf(const Figure& figure, const std::string& recipe) {
    const std::string page = paintPdf(figure.scene, titleOf(figure));
    return page.empty() ? page : withAttachment(page, attachmentName, recipe);
}

bool isPdf(std::string_view bytes) { return bytes.starts_with("%PDF-"); }

std::optional<std::string> recipeInPdf(std::string_view bytes) { return attachmentIn(bytes, attachmentName); }

} // namespace coulter
