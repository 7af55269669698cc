#include "desktop/translation.h"

#include <QCoreApplication>
#include <QFile>
#include <QHash>
#include <QJsonDocument>
#include <QJsonObject>
#include <QLibraryInfo>
#include <QLocale>
#include <QSettings>
#include <QTranslator>
#include <algorithm>
#include <functional>
#include <memory>
#include <optional>
#include <vector>

/// Resources of a static library are there only once something asks for them; this must stand outside namespaces.
static void loadTranslations() { Q_INIT_RESOURCE(translations); }

namespace coulter {
namespace {

/// A sentence with places for what it is about.
struct Template {
    QStringList english, other; ///< what stands between the places
    int letters = 0;            ///< of the English: of several that fit the one with most says most
};

/// Where the places are filled in a sentence; none if it is another one.
std::optional<QStringList> filling(const Template& sentence, const QString& text) {
    const QStringList& parts = sentence.english;
    if (!text.startsWith(parts.first()) || !text.endsWith(parts.last())) return std::nullopt;
    QStringList found;
    qsizetype at = parts.first().size();
    for (qsizetype i = 1; i < parts.size(); ++i) {
        const bool isLast = i + 1 == parts.size();
        const qsizetype next = isLast ? text.size() - parts[i].size() : text.indexOf(parts[i], at);
        if (next < at || (parts[i].isEmpty() && !isLast)) return std::nullopt;
        found << text.mid(at, next - at);
        at = next + parts[i].size();
    }
    return found;
}

/// English quotation marks round what is quoted, as German ones.
QString quoted(QString text) {
    if (text.contains(QChar(0x201d))) text.replace(QChar(0x201c), QChar(0x201e)).replace(QChar(0x201d), QChar(0x201c));
    return text;
}

class Catalogue : public QTranslator {
public:
    explicit Catalogue(const QString& language) {
        loadTranslations();
        QFile file(":/translations/" + language + ".json");
        if (!file.open(QIODevice::ReadOnly)) return;
        const QJsonObject all = QJsonDocument::fromJson(file.readAll()).object();
        for (const char* part : {"window", "core", "words"}) {
            const QJsonObject entries = all[part].toObject();
            for (auto entry = entries.begin(); entry != entries.end(); ++entry) {
                if (!entry.value().isString()) continue;
                if (QString(part) == "window")
                    window_.insert(entry.key(), entry.value().toString());
                else
                    add(entry.key(), entry.value().toString());
            }
        }
        std::ranges::sort(templates_, std::greater(), &Template::letters);
        std::ranges::sort(fragments_, [](const auto& a, const auto& b) { return a.first.size() > b.first.size(); });
    }

    QString translate(const char*, const char* source, const char*, int) const override {
        return window_.value(QString::fromUtf8(source));
    }
    bool isEmpty() const override { return window_.isEmpty(); }

    QString of(const QString& english, int depth = 0) const {
        if (english.size() < 2) return english;
        if (const auto exact = sentences_.find(english); exact != sentences_.end()) return *exact;
        for (const Template& each : templates_) {
            const auto found = filling(each, english);
            if (!found) continue;
            QString other = each.other.first();
            for (qsizetype i = 0; i < found->size(); ++i)
                other += (depth < 3 ? quoted(of((*found)[i], depth + 1)) : (*found)[i]) + each.other[i + 1];
            return other;
        }
        if (depth > 0) return english;
        // An answer and what is said of it: “{3.14, 6.28}: all, proven”.
        if (const qsizetype colon = english.lastIndexOf(": "); colon > 0) {
            const QString said = of(english.mid(colon + 2), 1);
            if (said != english.mid(colon + 2)) return quoted(of(english.left(colon), 1)) + ": " + said;
        }
        QString rest = english; // put together of parts
        for (const auto& [part, other] : fragments_) rest.replace(part, other);
        return rest;
    }

private:
    void add(QString english, QString other) {
        // What begins or ends with a space goes on there; as a part of more it counts, too.
        const bool before = english.startsWith(' '), after = english.endsWith(' ');
        if ((before || after) && !english.contains("{}") && english.size() > 6) fragments_.emplace_back(english, other);
        if (before) english.prepend("{}"), other.prepend("{}");
        if (after) english.append("{}"), other.append("{}");
        if (english.contains("{}")) {
            Template made{english.split("{}"), other.split("{}"), 0};
            for (const QChar c : english) made.letters += c.isLetter() ? 1 : 0;
            if (made.letters >= 4 && made.english.size() == made.other.size()) templates_.push_back(std::move(made));
        } else {
            sentences_.insert(english, other);
        }
    }

    QHash<QString, QString> window_, sentences_;
    std::vector<Template> templates_;
    std::vector<std::pair<QString, QString>> fragments_;
};

/// Null: English.
std::unique_ptr<Catalogue>& catalogue() {
    static std::unique_ptr<Catalogue> current;
    return current;
}

} // namespace

QString languageOf(const QStringList& preferred) {
    for (const QString& each : preferred) {
        const QString language = each.section('-', 0, 0).section('_', 0, 0).toLower();
        if (language == "de" || language == "en") return language;
    }
    return "en";
}

QString chosenLanguage() {
    const QString chosen = QSettings().value("language").toString();
    return chosen.isEmpty() ? languageOf(QLocale::system().uiLanguages()) : languageOf({chosen});
}

void chooseLanguage(const QString& language) { QSettings().setValue("language", language); }

void speak(const QString& language) {
    static QTranslator ofQt; // buttons of its own questions
    if (catalogue()) QCoreApplication::removeTranslator(catalogue().get());
    QCoreApplication::removeTranslator(&ofQt);
    catalogue().reset();
    if (language == "en") return;
    if (ofQt.load("qtbase_" + language, QLibraryInfo::path(QLibraryInfo::TranslationsPath)))
        QCoreApplication::installTranslator(&ofQt);
    catalogue() = std::make_unique<Catalogue>(language);
    QCoreApplication::installTranslator(catalogue().get());
}

QString spoken(const std::string& english) {
    const QString text = QString::fromStdString(english);
    return catalogue() ? catalogue()->of(text) : text;
}

QString spoken(const Problem& problem) {
    if (!catalogue()) return QString::fromStdString(describe(problem));
    QString text;
    if (problem.line >= 0) text = QCoreApplication::translate("Problem", "line %1, ").arg(problem.line + 1);
    if (problem.first > 0) text += QCoreApplication::translate("Problem", "character %1: ").arg(problem.first);
    text += spoken(problem.sentence);
    if (!problem.suggestion.empty()) text += " — " + spoken(problem.suggestion);
    return text;
}

} // namespace coulter
