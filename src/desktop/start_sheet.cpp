#include "desktop/start_sheet.h"

#include "desktop/line_editor.h"
#include "desktop/picture_grid.h"
#include "formula/lines/read_page.h"
#include "formula/lines/typed_line.h"
#include "typeset/formula_math.h"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QSettings>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>

namespace coulter {
namespace {

constexpr int typedWidth = 190, pictureWidth = 150, pictureHeight = 112; // px at the usual scale
constexpr const char* picturedExamples[] = {"soil-temperature", "two-wells", "drawdown-cone"};
constexpr int mostRecentShown = 4;

QLabel* heading(const QString& text) {
    auto* label = new QLabel(text);
    label->setObjectName("paneHeading");
    return label;
}

/// A line as the page reads it, with what it needs besides.
MathPtr mathOf(const std::string& line) {
    const TypedLine typed = readTyped({}, line);
    std::vector<std::string> lines{typed.text};
    for (const auto* further : {&typed.given, &typed.assumed})
        lines.insert(lines.end(), further->begin(), further->end());
    return lineMath(readPage(lines).lines[0]);
}

QToolButton* plainLink(const QString& text, const QString& name) {
    auto* made = new QToolButton;
    made->setText(text);
    made->setObjectName(name);
    made->setAutoRaise(true);
    return made;
}

} // namespace

FormulaLink::FormulaLink(const QString& line, const LookSettings& look, QWidget* parent)
    : QAbstractButton(parent), look_(look), math_(mathOf(line.toStdString())) {
    setText(line);
    setAccessibleName(line);
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::TabFocus);
    setToolTip(tr("Writes this line on the page"));
}

QSize FormulaLink::sizeHint() const { return {look_.look().px(440), look_.look().px(34)}; }

void FormulaLink::paintEvent(QPaintEvent*) {
    const Look& look = look_.look();
    QPainter painter(this);
    const bool isLit = underMouse() || hasFocus();
    painter.fillRect(rect(), isLit ? look.faintAccent() : look.page());
    if (hasFocus()) painter.fillRect(0, 0, look.px(3), height(), look.accent());
    painter.setPen(look.ink());
    QFont typed = font();
    typed.setFamilies({"Source Code Pro", "DejaVu Sans Mono", "monospace"});
    typed.setStyleHint(QFont::Monospace);
    painter.setFont(typed);
    painter.drawText(QRect(look.px(10), 0, look.px(typedWidth), height()), Qt::AlignVCenter | Qt::AlignLeft, text());
    if (!math_) return;
    QImage image = paintBox(layoutMath(*math_, 0.86 * formulaSize), screenDots * look.scale * devicePixelRatioF(), look,
                            isLit ? look.faintAccent() : look.page());
    image.setDevicePixelRatio(devicePixelRatioF());
    const QSizeF size = image.deviceIndependentSize();
    const double room = width() - look.px(typedWidth) - look.px(24),
                 shrunk = std::min({1.0, room / std::max(1.0, size.width()), height() / std::max(1.0, size.height())});
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.drawImage(QRectF(look.px(typedWidth) + look.px(16), (height() - shrunk * size.height()) / 2,
                             shrunk * size.width(), shrunk * size.height()),
                      image);
}

QStringList StartSheet::lines() {
    return {"y = x^2 - 2x + 3", "sin x / x",       "e^-x cos 2x",      "x^2 + y^2 = 1",      "z = sin(x) cos(y)",
            "r = 1 + cos(phi)", "(cos t, sin 2t)", "{1, 2.5, 3, 1.6}", "int_0^1 e^(-x^2) dx"};
}

StartSheet::StartSheet(const LookSettings& look, QWidget* parent)
    : QWidget(parent), look_(look), recent_(new QVBoxLayout) {
    setObjectName("startSheet");
    setAccessibleName(tr("What can be done first"));
    const Look& now = look.look();
    auto* column = new QVBoxLayout;
    column->setSpacing(now.px(4));
    auto* welcome = new QLabel(tr("Write a formula on the page at the left; Enter draws it."));
    welcome->setObjectName("startWelcome");
    welcome->setWordWrap(true);
    QFont large = welcome->font();
    large.setPointSizeF(1.35 * large.pointSizeF());
    welcome->setFont(large);
    welcome->setContentsMargins(now.px(10), 0, 0, now.px(8)); // in line with what stands below
    column->addWidget(welcome);
    column->addWidget(heading(tr("Such as")));
    for (const QString& line : lines()) {
        auto* link = new FormulaLink(line, look);
        link->setObjectName("startLine");
        connect(link, &QAbstractButton::clicked, this, [this, line] { emit lineWanted(line); });
        column->addWidget(link);
    }
    column->addWidget(heading(tr("Or from an example")));
    auto* row = new QHBoxLayout;
    row->setSpacing(now.px(8));
    for (const char* name : picturedExamples) {
        auto* picture = new QToolButton;
        picture->setObjectName("startExample");
        picture->setText(spelledExample(name));
        picture->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
        picture->setIconSize({now.px(pictureWidth), now.px(pictureHeight)});
        picture->setAutoRaise(true);
        connect(picture, &QAbstractButton::clicked, this, [this, name] { emit exampleWanted(name); });
        row->addWidget(picture);
        pictures_.push_back(picture);
    }
    row->addStretch(1);
    column->addLayout(row);
    auto* doors = new QHBoxLayout;
    QToolButton* all = plainLink(tr("All examples…"), "startExamples");
    connect(all, &QAbstractButton::clicked, this, &StartSheet::examplesWanted);
    QToolButton* open = plainLink(tr("Open a recipe or a figure…"), "startOpen");
    connect(open, &QAbstractButton::clicked, this, &StartSheet::openWanted);
    QToolButton* measured = plainLink(tr("Data…"), "startData");
    connect(measured, &QAbstractButton::clicked, this, &StartSheet::dataWanted);
    for (QToolButton* each : {all, open, measured}) doors->addWidget(each);
    doors->addStretch(1);
    column->addLayout(doors);
    column->addLayout(recent_);
    column->addStretch(1);
    auto* across = new QHBoxLayout(this);
    across->setContentsMargins(now.px(36), now.px(28), now.px(36), now.px(12));
    across->addLayout(column, 1);
    addRecent();
    if (parent) parent->installEventFilter(this);
    connect(&drawer_, &LittlePictures::drawn, this, [this](int i, const QImage& image) {
        pictures_[static_cast<std::size_t>(i)]->setIcon(QIcon(QPixmap::fromImage(image)));
    });
}

void StartSheet::addRecent() {
    const QStringList paths = QSettings().value("recent").toStringList();
    int shown = 0;
    for (const QString& path : paths) {
        if (shown == mostRecentShown || !QFileInfo::exists(path)) continue;
        if (shown++ == 0) recent_->addWidget(heading(tr("Or go on with")));
        QToolButton* link = plainLink(QFileInfo(path).fileName(), "startRecent");
        link->setToolTip(path);
        connect(link, &QAbstractButton::clicked, this, [this, path] { emit fileWanted(path); });
        recent_->addWidget(link);
    }
}

/// Pictures are drawn when they are first to be seen.
void StartSheet::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    if (isDrawn_) return;
    isDrawn_ = true;
    std::vector<Document> documents;
    for (const char* name : picturedExamples) documents.push_back(exampleOf(name).document);
    const int wide = look_.look().px(pictureWidth), high = look_.look().px(pictureHeight);
    const double ratio = devicePixelRatioF();
    drawer_.draw(std::move(documents), wide, ratio,
                 [size = (QSizeF(wide, high) * ratio).toSize(), ground = look_.look().page()](const QImage& image) {
                     return onGround(image, size, ground);
                 });
}

bool StartSheet::eventFilter(QObject* object, QEvent* event) {
    if (object == parent() && event->type() == QEvent::Resize) setGeometry(parentWidget()->rect());
    return QWidget::eventFilter(object, event);
}

void StartSheet::paintEvent(QPaintEvent*) { QPainter(this).fillRect(rect(), look_.look().page()); }

} // namespace coulter
