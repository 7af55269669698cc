#include "desktop/function_catalogue.h"

#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "desktop/line_editor.h"
#include "desktop/translation.h"
#include "drawing/cairo_painter.h"
#include "formula/base/text.h"
#include "formula/notation/parser.h"
#include "typeset/formula_math.h"

#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

namespace coulter {
namespace {

/// Room for the picture, px at the scale 1.
constexpr int pictureWidth = 430, pictureHeight = 260;

KnownNames namesOf(const FunctionEntry& entry) {
    KnownNames names;
    for (const auto* part : {&entry.below, &entry.above, &entry.inside})
        names.values.insert(part->begin(), part->end());
    return names;
}

QPixmap formula(const std::string& text, const KnownNames& names, const Look& look, double size, qreal ratio) {
    const ParsedExpression parsed = parseExpression(decodeUtf8(text), names);
    if (!parsed.expression) return {};
    QImage image = paintBox(layoutMath(*formulaMath(*parsed.expression), size), screenDots * look.scale * ratio, look,
                            look.ground());
    image.setDevicePixelRatio(ratio);
    return QPixmap::fromImage(image);
}

std::string withoutDots(std::string_view form) {
    std::string text(form);
    if (const auto dots = text.find(", …"); dots != std::string::npos) text.erase(dots, std::string(", …").size());
    return text;
}

QString text(std::string_view view) { return QString::fromUtf8(view.data(), static_cast<qsizetype>(view.size())); }

} // namespace

Document pictureOf(const FunctionEntry& entry) {
    Document document;
    document.page = {"x in " + std::string(entry.interval)};
    document.sheet.width = 96;
    document.sheet.height = 58;
    document.sheet.textSize = 8;
    document.panels[0].y.label = "";
    Plot plot;
    plot.of = entry.plotted;
    document.panels[0].plots = {plot};
    return document;
}

FunctionCatalogue::FunctionCatalogue(const LookSettings& look, QWidget* parent)
    : QDialog(parent), look_(look), search_(new QLineEdit), list_(new QListWidget), form_(new QLabel),
      meaning_(new QLabel), domain_(new QLabel), derivative_(new QLabel), source_(new QLabel), plot_(new QLabel) {
    setObjectName("functionCatalogue");
    setWindowTitle(tr("Functions"));
    search_->setPlaceholderText(tr("Search by name or by a word"));
    search_->setAccessibleName(tr("Search"));
    search_->setObjectName("functionSearch");
    list_->setObjectName("functionList");
    list_->setAccessibleName(tr("Functions"));
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    form_->setMinimumHeight(look.look().px(46));
    for (QLabel* label : {meaning_, domain_}) label->setWordWrap(true);
    plot_->setFixedSize(look.look().px(pictureWidth), look.look().px(pictureHeight));
    plot_->setAccessibleName(tr("Picture of the function"));
    auto* left = new QVBoxLayout;
    left->addWidget(search_);
    left->addWidget(list_, 1);
    auto* facts = new QFormLayout;
    facts->addRow(tr("Defined for"), domain_);
    facts->addRow(tr("Derivative"), derivative_);
    facts->addRow(tr("Source"), source_);
    auto* insert = new QPushButton(tr("Insert"));
    insert->setObjectName("insertFunction");
    auto* right = new QVBoxLayout;
    right->addWidget(form_);
    right->addWidget(meaning_);
    right->addLayout(facts);
    right->addStretch(1);
    right->addWidget(plot_);
    auto* last = new QHBoxLayout;
    last->addStretch(1);
    last->addWidget(insert);
    right->addLayout(last);
    auto* columns = new QHBoxLayout(this);
    columns->addLayout(left, 1);
    columns->addLayout(right);
    resize(look.look().px(820), look.look().px(560));
    connect(search_, &QLineEdit::textChanged, this, &FunctionCatalogue::fill);
    connect(list_, &QListWidget::currentRowChanged, this, &FunctionCatalogue::showEntry);
    connect(insert, &QPushButton::clicked, this, [this] { emit inserted(chosen()); });
    connect(list_, &QListWidget::itemActivated, this, [this] { emit inserted(chosen()); });
    fill("");
}

QString FunctionCatalogue::chosen() const {
    const int row = list_->currentRow();
    if (row < 0 || row >= static_cast<int>(shown_.size())) return {};
    return QString::fromStdString(withoutDots(shown_[static_cast<std::size_t>(row)]->form));
}

void FunctionCatalogue::fill(const QString& wanted) {
    const QSignalBlocker blocker(list_);
    list_->clear();
    shown_.clear();
    for (const FunctionEntry& entry : catalogue()) {
        const QString words =
            text(entry.form) + " " + text(entry.meaning) + " " + text(greekName(decodeUtf8(entry.name)[0]));
        if (!words.contains(wanted, Qt::CaseInsensitive)) continue;
        shown_.push_back(&entry);
        QString form = text(entry.form);
        form.remove('{').remove('}');
        list_->addItem(form + "  –  " + text(entry.meaning));
    }
    list_->setCurrentRow(shown_.empty() ? -1 : 0);
    showEntry();
}

void FunctionCatalogue::showEntry() {
    const int row = list_->currentRow();
    if (row < 0 || row >= static_cast<int>(shown_.size())) return;
    const FunctionEntry& entry = *shown_[static_cast<std::size_t>(row)];
    const Look& look = look_.look();
    const KnownNames names = namesOf(entry);
    form_->setPixmap(formula(withoutDots(entry.form), names, look, 7, devicePixelRatioF()));
    form_->setAccessibleName(text(entry.form));
    meaning_->setText(spoken(std::string(entry.meaning)));
    domain_->setText(spoken(std::string(entry.domain)));
    source_->setText(text(entry.source));
    const std::string& derivative =
        entry.derivatives.back().empty() ? entry.derivatives.front() : entry.derivatives.back();
    if (derivative.empty())
        derivative_->setText(tr("no formula known here"));
    else
        derivative_->setPixmap(formula(derivative, names, look, 3.6, devicePixelRatioF()));
    draw(entry);
}

void FunctionCatalogue::draw(const FunctionEntry& entry) {
    picture_ = QImage();
    plot_->clear();
    const double ratio = devicePixelRatioF();
    const double wide = look_.look().px(pictureWidth) * ratio;
    drawer_ = std::jthread([this, &entry, wide, ratio](std::stop_token stop) {
        const Figure figure = drawFigure(pictureOf(entry), stop);
        if (stop.stop_requested()) return;
        const Raster raster = paintRaster(figure.scene, wide / figure.scene.width);
        QImage image = QImage(reinterpret_cast<const uchar*>(raster.pixels.data()), raster.width, raster.height,
                              raster.width * 4, QImage::Format_RGB32)
                           .copy();
        image.setDevicePixelRatio(ratio);
        QMetaObject::invokeMethod(this, [this, image, stop] {
            if (stop.stop_requested()) return;
            picture_ = image;
            plot_->setPixmap(QPixmap::fromImage(image));
        });
    });
}

} // namespace coulter
