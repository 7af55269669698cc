#include "desktop/picture_sheet.h"

#include "desktop/other_eyes.h"
#include "desktop/picture_grid.h"
#include "figure/scale_settings.h"

#include <QApplication>
#include <QCheckBox>
#include <QListWidget>
#include <QPainter>
#include <QVBoxLayout>
#include <algorithm>

namespace coulter {
namespace {

constexpr double pictureWidth = 56, pictureHeight = 42; // mm
constexpr int pictureDots = 190;

/// Above in colour and in grey print, below as readers see it who lack red or green.
QImage forAllEyes(const QImage& image) {
    QImage all(image.width(), image.height(), QImage::Format_RGB32);
    all.fill(Qt::white);
    const QImage views[] = {image, seenBy(image, Eyes::GreyPrint), seenBy(image, Eyes::Protanopia),
                            seenBy(image, Eyes::Deuteranopia)};
    QPainter painter(&all);
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    const int w = image.width() / 2, h = image.height() / 2;
    for (int i = 0; i < 4; ++i) painter.drawImage(QRect(i % 2 * w, i / 2 * h, w - 2, h - 2), views[i]);
    return all;
}

} // namespace

Sheet PictureSheet::littleSheet() {
    Sheet sheet;
    sheet.width = pictureWidth;
    sheet.height = pictureHeight;
    sheet.textSize = 5;
    sheet.tolerance = 0.1;
    sheet.resolution = 150;
    return sheet;
}

Document PictureSheet::littleDocument(const Document& document, std::size_t index) {
    Document little;
    little.format = document.format;
    little.page = document.page;
    little.tables = document.tables;
    little.sheet = littleSheet();
    little.panels = {document.panels[index]};
    Panel& panel = little.panels[0];
    panel.cell.reset();
    panel.further.clear();
    panel.notes.clear();
    panel.title.clear();
    panel.x.label = panel.y.label = panel.z.label = panel.colour.label = "";
    panel.legend.place = LegendPlace::None;
    set(panel.colour.settings, barSetting, std::string("none"));
    return little;
}

PictureSheet::PictureSheet(DocumentSession& session, const LookSettings& look, const QString& title,
                           const QString& what, std::vector<PictureChoice> choices, For whom, QWidget* parent)
    : QDialog(parent), session_(session), what_(what), choices_(std::move(choices)), list_(new QListWidget),
      adds_(new QCheckBox(tr("add it to what is drawn (Shift)"))) {
    setWindowTitle(title);
    list_->setObjectName("pictures");
    list_->setAccessibleName(title);
    const int wide = look.look().px(pictureDots), high = static_cast<int>(wide * pictureHeight / pictureWidth);
    makePictureGrid(*list_, look.look(), {wide, high});
    auto* column = new QVBoxLayout(this);
    column->addWidget(list_);
    column->addWidget(adds_);
    adds_->setObjectName("pictureAdds");
    adds_->setToolTip(tr("The one that is chosen is drawn, too, and what is there stays as it is"));
    adds_->setVisible(std::ranges::any_of(choices_, [](const PictureChoice& choice) { return bool(choice.add); }));
    resize(look.look().px(900), look.look().px(620));
    std::vector<Document> documents;
    QPixmap empty(wide, high);
    empty.fill(look.look().page());
    for (const PictureChoice& choice : choices_) {
        documents.push_back(choice.little);
        auto* item = new QListWidgetItem(QIcon(empty), choice.name, list_);
        item->setTextAlignment(Qt::AlignHCenter);
        if (whom == For::All)
            item->setToolTip(tr("In colour, in grey print, and as readers see it who lack red or green"));
        if (choice.isNow) list_->setCurrentItem(item);
    }
    connect(list_, &QListWidget::itemClicked, this, [this](QListWidgetItem* item) { choose(list_->row(item)); });
    connect(list_, &QListWidget::itemActivated, this, [this](QListWidgetItem* item) { choose(list_->row(item)); });
    connect(&drawer_, &LittlePictures::drawn, this, [this](int i, const QImage& image) {
        showPicture(*list_->item(i), image);
        ++pictures_;
    });
    drawer_.draw(std::move(documents), wide, devicePixelRatioF(), whom == For::All ? forAllEyes : nullptr);
}

void PictureSheet::choose(int row) {
    if (row < 0 || row >= static_cast<int>(choices_.size())) return;
    Document document = session_.document();
    const PictureChoice& chosen = choices_[static_cast<std::size_t>(row)];
    const bool adds = adds_->isChecked() || (QApplication::keyboardModifiers() & Qt::ShiftModifier);
    if (adds && chosen.add)
        chosen.add(document);
    else
        chosen.choose(document);
    session_.edit(std::move(document), what_);
    close();
}

} // namespace coulter
