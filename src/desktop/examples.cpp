#include "desktop/examples.h"

#include "files/recipe.h"
#include "plots/document_words.h"

#include <QDir>
#include <QFile>

static void loadExamples() { Q_INIT_RESOURCE(examples); }

namespace coulter {

Example exampleOf(const QString& name) {
    loadExamples();
    QFile file(":/examples/" + name + ".coulter");
    if (!file.open(QIODevice::ReadOnly)) return {};
    const RecipeRead read = readRecipe(file.readAll().toStdString());
    if (!read.document) return {};
    Example example{name, QString::fromStdString(sentenceOf(*read.document)),
                    QString::fromStdString(searchWordsOf(*read.document)), *read.document};
    if (example.sentence.isEmpty()) example.sentence = spelledExample(name);
    example.words += " " + spelledExample(name).toLower();
    return example;
}

std::vector<Example> allExamples() {
    loadExamples();
    std::vector<Example> all;
    for (const QString& file : QDir(":/examples").entryList(QDir::Files, QDir::Name))
        all.push_back(exampleOf(file.section('.', 0, 0)));
    return all;
}

QString spelledExample(const QString& name) {
    QString spelled = QString(name).replace('-', ' ');
    if (!spelled.isEmpty()) spelled[0] = spelled[0].toUpper();
    return spelled;
}

} // namespace coulter
