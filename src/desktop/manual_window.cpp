#include "desktop/manual_window.h"

#include "formula/page/line_parser.h"

#include <QDesktopServices>
#include <QFile>
#include <QHBoxLayout>
#include <QImage>
#include <QLineEdit>
#include <QListWidget>
#include <QRegularExpression>
#include <QScrollBar>
#include <QTextBlock>
#include <QTextDocument>
#include <QTextFrame>
#include <QTextTable>
#include <QUrl>
#include <QVBoxLayout>
#include <array>

/// Resources of a static library are there only once something asks for them; this must stand outside namespaces.
static void loadManualResource() { Q_INIT_RESOURCE(manual); }

namespace coulter {
namespace {

struct ManualPage {
    const char *file, *title;
};
constexpr std::array<ManualPage, 15> manualPages{{{"guide", "Guide"},
                                                  {"notation", "Notation"},
                                                  {"functions", "Functions"},
                                                  {"units", "Units"},
                                                  {"calculus", "Integrals, series, Fourier"},
                                                  {"data", "Data"},
                                                  {"plots", "Kinds of plot"},
                                                  {"scales", "Scales"},
                                                  {"sheet", "The sheet"},
                                                  {"words", "Words"},
                                                  {"sampling", "Sampling and proofs"},
                                                  {"remarks", "Remarks"},
                                                  {"window", "The window"},
                                                  {"command-line", "The command line"},
                                                  {"sweeps", "Figures by the thousand"}}};

/// Whether code in the manual is a line of a page that says something by itself.
bool isLine(const QString& code) {
    const Line line = outlineLine(code.toStdString()).line;
    return line.kind != LineKind::Unread && line.kind != LineKind::Blank && line.kind != LineKind::Prose &&
           line.problems.empty();
}

/// The text of a page with every example of a line as a link that puts it on the page.
QString withExamples(const QString& markdown) {
    static const QRegularExpression code("`([^`\n]+)`");
    QString out;
    bool fenced = false;
    for (QString row : markdown.split('\n')) {
        row.replace("![](", "![picture]("); // one without words would not be shown
        if (row.startsWith("```")) fenced = !fenced;
        qsizetype from = 0;
        for (auto at = code.globalMatch(row); !fenced && at.hasNext();) {
            const auto match = at.next();
            const bool isLink = match.capturedStart() > 0 && row[match.capturedStart() - 1] == '[';
            if (isLink || !isLine(match.captured(1))) continue;
            out += row.mid(from, match.capturedStart() - from) + "[" + match.captured(0) +
                   "](put:" + QString::fromLatin1(QUrl::toPercentEncoding(match.captured(1))) + ")";
            from = match.capturedEnd();
        }
        out += row.mid(from) + '\n';
    }
    return out;
}

/// Hairlines and room in tables, and a margin that text can be read in.
void dress(QTextDocument& document, const Look& look) {
    document.setDocumentMargin(look.px(18));
    for (QTextFrame* frame : document.rootFrame()->childFrames()) {
        auto* table = qobject_cast<QTextTable*>(frame);
        if (!table) continue;
        QTextTableFormat format = table->format();
        format.setBorder(1);
        format.setBorderBrush(look.hairline());
        format.setBorderStyle(QTextFrameFormat::BorderStyle_Solid);
        format.setBorderCollapse(true);
        format.setCellSpacing(0);
        format.setCellPadding(look.px(4));
        // A table of kinds and settings leaves its first columns empty below each kind.
        if (table->columns() == 5) {
            QList<QTextLength> widths;
            for (const double part : {18, 7, 16, 38, 18}) widths << QTextLength(QTextLength::PercentageLength, part);
            format.setColumnWidthConstraints(widths);
        }
        table->setFormat(format);
    }
}

} // namespace

QVariant ManualWindow::Browser::loadResource(int type, const QUrl& name) {
    if (type != QTextDocument::ImageResource) return QTextBrowser::loadResource(type, name);
    const QImage image(":/manual/" + name.path());
    // Pictures of the guide stand alone, others three side by side.
    const int most = name.path().contains("guide") ? 520 : 230;
    return image.width() > most ? image.scaledToWidth(most, Qt::SmoothTransformation) : image;
}

QString ManualWindow::titleOf(const QString& page) {
    for (const ManualPage& each : manualPages) {
        if (page == each.file) return tr(each.title);
    }
    return page;
}

std::vector<ManualPlace> ManualWindow::headings() {
    loadManualResource();
    static const QRegularExpression signs("[`*]");
    std::vector<ManualPlace> all;
    for (const ManualPage& page : manualPages) {
        QFile file(QString(":/manual/%1.md").arg(page.file));
        if (!file.open(QIODevice::ReadOnly)) continue;
        bool isFenced = false;
        for (const QString& row : QString::fromUtf8(file.readAll()).split('\n')) {
            if (row.startsWith("```")) isFenced = !isFenced;
            if (isFenced || !row.startsWith('#')) continue;
            all.push_back({page.file, row.mid(row.indexOf(' ') + 1).remove(signs).trimmed()});
        }
    }
    return all;
}

ManualWindow::ManualWindow(const LookSettings& look, QWidget* parent)
    : QDialog(parent), look_(look), pages_(new QListWidget), search_(new QLineEdit), text_(new Browser) {
    loadManualResource();
    setObjectName("manualWindow");
    setWindowTitle(tr("Manual – Coulter"));
    resize(look.look().px(980), look.look().px(700));
    pages_->setObjectName("manual-pages");
    pages_->setAccessibleName(tr("Pages of the manual"));
    pages_->setMaximumWidth(look.look().px(190));
    for (const ManualPage& page : manualPages) pages_->addItem(tr(page.title));
    search_->setObjectName("manual-search");
    search_->setPlaceholderText(tr("find on this page"));
    search_->setAccessibleName(tr("Find on this page"));
    text_->setObjectName("manual-text");
    text_->setAccessibleName(tr("Text of the manual"));
    text_->setOpenLinks(false);
    auto* right = new QVBoxLayout;
    right->addWidget(search_);
    right->addWidget(text_, 1);
    auto* columns = new QHBoxLayout(this);
    columns->addWidget(pages_);
    columns->addLayout(right, 1);
    connect(pages_, &QListWidget::currentRowChanged, this, [this](int row) {
        const QString page = row < 0 ? QString() : QString(manualPages[static_cast<std::size_t>(row)].file);
        if (row >= 0 && page != place_.page) show({page, ""});
    });
    connect(text_, &QTextBrowser::anchorClicked, this, &ManualWindow::follow);
    connect(search_, &QLineEdit::textChanged, this, [this] { find(false); });
    connect(search_, &QLineEdit::returnPressed, this, [this] { find(true); });
}

void ManualWindow::show(const ManualPlace& place) {
    const bool isNew = place.page != place_.page;
    place_ = place;
    if (isNew) {
        QFile file(":/manual/" + place.page + ".md");
        text_->document()->setDefaultStyleSheet("a{color:" + look_.look().accent().name() + "}");
        text_->setMarkdown(file.open(QIODevice::ReadOnly) ? withExamples(QString::fromUtf8(file.readAll()))
                                                          : tr("This page of the manual is missing."));
        dress(*text_->document(), look_.look());
        for (std::size_t i = 0; i < manualPages.size(); ++i) {
            if (place.page == manualPages[i].file) pages_->setCurrentRow(static_cast<int>(i));
        }
    }
    QDialog::show();
    raise();
    scrollTo(place.words);
}

/// To a heading of these words, or to the first cell of a table that is them, or else to the words anywhere.
void ManualWindow::scrollTo(const QString& words) {
    QTextCursor found(text_->document());
    if (!words.isEmpty()) {
        for (QTextBlock block = text_->document()->begin(); block.isValid(); block = block.next()) {
            const bool isHeading = block.blockFormat().headingLevel() > 0;
            if (isHeading && block.text().compare(words, Qt::CaseInsensitive) == 0) {
                found = QTextCursor(block);
                break;
            }
            if (block.text() == words && found.isNull()) found = QTextCursor(block);
            if (block.text() == words && found.position() == 0) found = QTextCursor(block);
        }
        if (found.position() == 0) {
            const QTextCursor anywhere = text_->document()->find(words);
            if (!anywhere.isNull()) found = anywhere;
        }
    }
    // So that it stands at the top, not at the foot.
    text_->verticalScrollBar()->setValue(text_->verticalScrollBar()->maximum());
    found.clearSelection();
    text_->setTextCursor(found);
    text_->ensureCursorVisible();
    text_->verticalScrollBar()->setValue(text_->verticalScrollBar()->value() + text_->cursorRect(found).top() - 8);
}

void ManualWindow::follow(const QUrl& link) {
    if (link.scheme() == "put") {
        emit lineWanted(QUrl::fromPercentEncoding(link.path(QUrl::FullyEncoded).toLatin1()));
        return;
    }
    if (!link.scheme().isEmpty()) {
        QDesktopServices::openUrl(link);
        return;
    }
    QString page = link.path().section('/', -1);
    if (page.endsWith(".md")) page.chop(3);
    // An anchor is a heading in small letters with hyphens.
    const QString anchor = link.fragment();
    if (page.isEmpty()) page = place_.page;
    show({page, ""});
    if (anchor.isEmpty()) return;
    for (QTextBlock block = text_->document()->begin(); block.isValid(); block = block.next()) {
        QString slug = block.text().toLower().replace(' ', '-');
        slug.remove(QRegularExpression("[^\\w-]", QRegularExpression::UseUnicodePropertiesOption));
        if (block.blockFormat().headingLevel() > 0 && slug == anchor) return scrollTo(block.text());
    }
}

void ManualWindow::find(bool again) {
    QTextCursor from = text_->textCursor();
    if (!again) from.setPosition(from.selectionStart());
    QTextCursor found = text_->document()->find(search_->text(), from);
    if (found.isNull()) found = text_->document()->find(search_->text());
    if (!found.isNull()) text_->setTextCursor(found);
}

} // namespace coulter
