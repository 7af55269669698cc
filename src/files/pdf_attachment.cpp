// Compiled as C++17: the headers of QPDF 11 are not valid C++20 for every compiler.
#include "files/pdf_attachment.h"

#include <qpdf/QPDF.hh>
#include <qpdf/QPDFEFStreamObjectHelper.hh>
#include <qpdf/QPDFEmbeddedFileDocumentHelper.hh>
#include <qpdf/QPDFFileSpecObjectHelper.hh>
#include <qpdf/QPDFWriter.hh>

namespace coulter {

std::string withAttachment(const std::string& bytes, const std::string& name, const std::string& text) {
    try {
        QPDF pdf;
        pdf.processMemoryFile("figure", bytes.data(), bytes.size());
        auto stream = QPDFEFStreamObjectHelper::createEFStream(pdf, text);
        stream.setSubtype("application/json");
        auto specification = QPDFFileSpecObjectHelper::createFileSpec(pdf, name, stream);
        specification.setDescription("Recipe of this figure");
        QPDFEmbeddedFileDocumentHelper(pdf).replaceEmbeddedFile(name, specification);
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

std::optional<std::string> attachmentIn(std::string_view bytes, const std::string& name) {
    try {
        QPDF pdf;
        pdf.setSuppressWarnings(true);
        pdf.processMemoryFile("figure", bytes.data(), bytes.size());
        const auto specification = QPDFEmbeddedFileDocumentHelper(pdf).getEmbeddedFile(name);
        if (!specification) return std::nullopt;
        auto stream = specification->getEmbeddedFileStream();
        const auto data = stream.getStreamData(qpdf_dl_all);
        return std::string(reinterpret_cast<const char*>(data->getBuffer()), data->getSize());
    } catch (const std::exception&) {
        return std::nullopt;
    }
}

} // namespace coulter
