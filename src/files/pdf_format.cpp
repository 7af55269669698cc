#include "drawing/cairo_painter.h"
#include "files/formats.h"

#include <qpdf/JSON.hh> // before the others, which need it whole
#include <qpdf/QPDF.hh>
#include <qpdf/QPDFEFStreamObjectHelper.hh>
#include <qpdf/QPDFEmbeddedFileDocumentHelper.hh>
#include <qpdf/QPDFFileSpecObjectHelper.hh>
#include <qpdf/QPDFWriter.hh>

namespace coulter {
namespace {

constexpr const char* attachmentName = "recipe.coulter";

} // namespace

std::string writePdf(const Figure& figure, const Document& document, const std::string& recipe) {
    const std::string page = paintPdf(figure.scene, document.panels[0].title);
    if (page.empty()) return {};
    try {
        QPDF pdf;
        pdf.processMemoryFile("figure", page.data(), page.size());
        auto stream = QPDFEFStreamObjectHelper::createEFStream(pdf, recipe);
        stream.setSubtype("application/json");
        auto specification = QPDFFileSpecObjectHelper::createFileSpec(pdf, attachmentName, stream);
        specification.setDescription("Recipe of this figure");
        QPDFEmbeddedFileDocumentHelper(pdf).replaceEmbeddedFile(attachmentName, specification);
        QPDFWriter writer(pdf);
        writer.setDeterministicID(true);
        writer.setOutputMemory();
        writer.write();
        const auto buffer = writer.getBufferSharedPointer();
        return {reinterpret_cast<const char*>(buffer->getBuffer()), buffer->getSize()};
    } catch (const std::exception&) {
        return {};
    }
}

bool isPdf(std::string_view bytes) { return bytes.starts_with("%PDF-"); }

std::optional<std::string> recipeInPdf(std::string_view bytes) {
    try {
        QPDF pdf;
        pdf.setSuppressWarnings(true);
        pdf.processMemoryFile("figure", bytes.data(), bytes.size());
        const auto specification = QPDFEmbeddedFileDocumentHelper(pdf).getEmbeddedFile(attachmentName);
        if (!specification) return std::nullopt;
        auto stream = specification->getEmbeddedFileStream();
        const auto data = stream.getStreamData(qpdf_dl_all);
        return std::string(reinterpret_cast<const char*>(data->getBuffer()), data->getSize());
    } catch (const std::exception&) {
        return std::nullopt;
    }
}

} // namespace coulter
