#include "data/file_trouble.h"

#include "formula/base/text.h"

namespace coulter {

TableRead refusedFile(std::string sentence, std::string suggestion) {
    TableRead read;
    read.problem.sentence = std::move(sentence);
    read.problem.suggestion = std::move(suggestion);
    return read;
}

std::string asUtf8(const std::string& words) {
    if (encodeUtf8(decodeUtf8(words)) == words) return words;
    std::u32string letters;
    for (const char byte : words) letters += static_cast<char32_t>(static_cast<unsigned char>(byte));
    return encodeUtf8(letters);
}

TableRead readVariable(const std::string& format,
                       const std::function<DataTable(std::vector<std::string>& variables)>& read) {
    TableRead found;
    std::vector<std::string> variables;
    try {
        found.table = read(variables);
        found.encoding = format;
    } catch (FileTrouble& trouble) {
        found = refusedFile(std::move(trouble.sentence), std::move(trouble.way));
    } catch (const std::bad_alloc&) {
        found = refusedFile("There is not enough memory to read it.");
    }
    if (variables.size() > 1) found.variables = std::move(variables);
    return found;
}

} // namespace coulter
