#include "desktop/series_sheet.h"

#include "desktop/choice_field.h"
#include "desktop/translation.h"
#include "files/file_access.h"
#include "formula/base/text.h"

#include <QCheckBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QSpinBox>
#include <QVBoxLayout>
#include <algorithm>
#include <set>

namespace coulter {
namespace {} // namespace

SeriesSheet::SeriesSheet(const LookSettings& look, Document document, const Figure& figure, const QString& name,
                         const QString& folder, Reader read, QWidget* parent)
    : QDialog(parent), document_(std::move(document)), name_(name), read_(std::move(read)), form_(new QFormLayout),
      of_(new ChoiceField), as_(new ChoiceField), values_(new QLineEdit), folder_(new QLineEdit(folder)),
      choose_(new QPushButton(tr("Choose…"))), start_(new QPushButton(tr("Write"))), count_(new QSpinBox),
      seconds_(new QSpinBox), logarithmic_(new QCheckBox(tr("evenly in the logarithm"))),
      toAndFro_(new QCheckBox(tr("and back again"))), summary_(new QLabel), progress_(new QProgressBar) {
    setObjectName("seriesSheet");
    setWindowTitle(tr("Several figures"));
    resize(look.look().px(520), look.look().px(420));
    of_->setObjectName("series-of");
    as_->setObjectName("series-as");
    values_->setObjectName("series-values");
    values_->setToolTip(tr("From 1 to 5: 1..5. Or one by one: {1, 2, 5}"));
    count_->setObjectName("series-count");
    count_->setRange(2, static_cast<int>(mostFrames));
    count_->setValue(9);
    seconds_->setObjectName("series-seconds");
    seconds_->setRange(1, 3600);
    seconds_->setValue(4);
    seconds_->setSuffix(tr(" s"));
    logarithmic_->setObjectName("series-logarithmic");
    toAndFro_->setObjectName("series-to-and-fro");
    folder_->setObjectName("series-folder");
    choose_->setObjectName("series-recipes");
    summary_->setObjectName("series-summary");
    summary_->setWordWrap(true);
    summary_->setAlignment(Qt::AlignTop);
    progress_->setObjectName("series-progress");
    progress_->setTextVisible(false);
    progress_->hide();
    start_->setObjectName("series-start");
    start_->setDefault(true);
    offer(figure);
    for (const ExportFormat& format : exportFormats())
        as_->addItem(QString::fromUtf8(std::string(format.name).c_str()).toUpper());
    as_->addItem(tr("one animated PNG"));
    auto* other = new QPushButton(tr("Choose…"));
    other->setObjectName("series-choose-folder");
    auto* where = new QHBoxLayout;
    where->addWidget(folder_, 1);
    where->addWidget(other);
    auto* place = new QWidget;
    where->setContentsMargins(0, 0, 0, 0);
    place->setLayout(where);
    form_->addRow(tr("of"), of_);
    form_->addRow(tr("recipes"), choose_);
    form_->addRow(tr("values"), values_);
    form_->addRow(tr("how many"), count_);
    form_->addRow("", logarithmic_);
    form_->addRow(tr("as"), as_);
    form_->addRow(tr("shown in"), seconds_);
    form_->addRow("", toAndFro_);
    form_->addRow(tr("folder"), place);
    auto* close = new QPushButton(tr("Close"));
    close->setObjectName("series-close");
    connect(close, &QPushButton::clicked, this, &QDialog::reject);
    auto* buttons = new QHBoxLayout;
    buttons->addWidget(progress_, 1);
    buttons->addStretch(1);
    buttons->addWidget(close);
    buttons->addWidget(start_);
    auto* column = new QVBoxLayout(this);
    column->addLayout(form_);
    column->addWidget(summary_, 1);
    column->addLayout(buttons);
    connect(of_, &QComboBox::currentIndexChanged, this, [this](int index) {
        if (index >= 0) values_->setText(kinds_[static_cast<std::size_t>(index)].values);
        showFields();
    });
    connect(as_, &QComboBox::currentIndexChanged, this, &SeriesSheet::showFields);
    connect(values_, &QLineEdit::textChanged, this, &SeriesSheet::sayPlan);
    connect(folder_, &QLineEdit::textChanged, this, &SeriesSheet::sayPlan);
    connect(count_, &QSpinBox::valueChanged, this, &SeriesSheet::sayPlan);
    connect(logarithmic_, &QCheckBox::toggled, this, &SeriesSheet::sayPlan);
    connect(toAndFro_, &QCheckBox::toggled, this, &SeriesSheet::sayPlan);
    connect(choose_, &QPushButton::clicked, this, [this] {
        takeRecipes(
            QFileDialog::getOpenFileNames(this, tr("Recipes whose figures are written"), folder_->text(),
                                          tr("Recipes and figures (*.coulter *.pdf *.svg *.png *.eps *.tiff)")));
    });
    connect(other, &QPushButton::clicked, this, [this] {
        const QString chosen = QFileDialog::getExistingDirectory(this, tr("Where figures go"), folder_->text());
        if (!chosen.isEmpty()) folder_->setText(chosen);
    });
    connect(start_, &QPushButton::clicked, this, [this] {
        if (working_)
            worker_.request_stop();
        else
            start();
    });
    values_->setText(kinds_.front().values);
    showFields();
}

void SeriesSheet::offer(const Figure& figure) {
    const Page& page = figure.page;
    for (const Line& line : page.lines) {
        if (line.kind != LineKind::Quantity) continue;
        const auto value = page.valueOf(line.name);
        if (!value || !std::isfinite(*value)) continue; // a list is a family
        const QString usual =
            line.range && std::isfinite(line.range->high - line.range->low)
                ? QString::fromStdString(roundedNumber(line.range->low, 6) + ".." + roundedNumber(line.range->high, 6))
                : QString::fromStdString("{" + roundedNumber(*value, 6) + "}");
        kinds_.push_back({line.name, usual});
        of_->addItem(tr("values of %1").arg(QString::fromStdString(line.name)));
    }
    const bool inSpace =
        std::ranges::any_of(figure.panels, [](const PanelFigure& panel) { return panel.frame().space.has_value(); });
    if (inSpace) {
        kinds_.push_back({"azimuth", "0..350"});
        of_->addItem(tr("azimuths of the view"));
        kinds_.push_back({"elevation", "10..80"});
        of_->addItem(tr("elevations of the view"));
    }
    kinds_.push_back({"", ""});
    of_->addItem(tr("other recipes"));
}

bool SeriesSheet::ofRecipes() const {
    const int index = of_->currentIndex();
    return index >= 0 && kinds_[static_cast<std::size_t>(index)].name.empty();
}

bool SeriesSheet::isAnimation() const { return as_->currentIndex() == as_->count() - 1 && !ofRecipes(); }

void SeriesSheet::setRow(QWidget* field, bool shown) {
    field->setVisible(shown);
    if (QWidget* label = form_->labelForField(field)) label->setVisible(shown);
}

void SeriesSheet::showFields() {
    setRow(choose_, ofRecipes());
    setRow(values_, !ofRecipes());
    setRow(count_, !ofRecipes());
    setRow(logarithmic_, !ofRecipes());
    setRow(seconds_, isAnimation());
    setRow(toAndFro_, isAnimation());
    sayPlan();
}

void SeriesSheet::takeRecipes(const QStringList& paths) {
    if (paths.isEmpty()) return;
    recipes_.clear();
    for (const QString& path : paths) {
        if (auto document = read_(path)) recipes_.emplace_back(QFileInfo(path).completeBaseName(), *document);
    }
    sayPlan();
}

QString SeriesSheet::gather(std::vector<SeriesFigure>& figures, Animation& animation) const {
    const std::filesystem::path folder = folder_->text().toStdString();
    if (!QFileInfo(folder_->text()).isDir()) return tr("The folder is not there; choose another one.");
    const auto& formats = exportFormats();
    const auto index = static_cast<std::size_t>(as_->currentIndex());
    const std::string ending(index < formats.size() ? formats[index].name : "png");
    if (ofRecipes()) {
        if (recipes_.empty()) return tr("Choose the recipes.");
        std::set<std::filesystem::path> taken;
        for (const auto& [name, document] : recipes_) {
            const auto target = folder / (name.toStdString() + "." + ending);
            if (!taken.insert(target).second)
                return tr("Two of the recipes are called %1; their figures would be one file.").arg(name);
            figures.push_back({document, target});
        }
        return {};
    }
    const std::string& changing = kinds_[static_cast<std::size_t>(of_->currentIndex())].name;
    Problem problem;
    const auto sweep = sweepOf(changing + "=" + values_->text().toStdString(),
                               static_cast<std::size_t>(count_->value()), logarithmic_->isChecked(), problem);
    if (!problem.sentence.empty()) return spoken(problem);
    if (!sweep) return tr("Write values such as 1..5, or {1, 2, 5}.");
    if (sweep->values.size() < 2) return tr("One value is one figure: write several, such as 1..5 or {1, 2, 5}.");
    if (!isAnimation()) {
        SeriesMade made = seriesOf(document_, *sweep, folder, name_.toStdString(), ending);
        if (made.problem) return spoken(*made.problem);
        figures = std::move(made.figures);
        return {};
    }
    animation = {sweep->name, sweep->values, static_cast<double>(seconds_->value())};
    if (toAndFro_->isChecked()) animation.goBack();
    figures.push_back({document_, folder / (name_.toStdString() + "-" + changing + ".png")});
    return {};
}

void SeriesSheet::sayPlan() {
    if (working_) return;
    std::vector<SeriesFigure> figures;
    Animation animation;
    const QString problem = gather(figures, animation);
    start_->setEnabled(problem.isEmpty());
    if (!problem.isEmpty()) return summary_->setText(problem);
    const auto there = std::ranges::count_if(figures, [](const SeriesFigure& each) {
        std::error_code error;
        return std::filesystem::exists(each.target, error);
    });
    const auto fileName = [](const SeriesFigure& each) {
        return QString::fromStdString(each.target.filename().string());
    };
    QString plan =
        isAnimation() ? tr("%1, of %2 figures.").arg(fileName(figures[0])).arg(animation.values.size())
        : figures.size() == 1
            ? tr("%1.").arg(fileName(figures[0]))
            : tr("%1 files, %2 to %3.").arg(figures.size()).arg(fileName(figures.front()), fileName(figures.back()));
    if (there > 0)
        plan += " " + (figures.size() == 1 ? tr("It is there already, and is replaced.")
                       : there == 1        ? tr("One of them is there already, and is replaced.")
                                           : tr("%1 of them are there already, and are replaced.").arg(there));
    summary_->setText(plan);
}

void SeriesSheet::start() {
    std::vector<SeriesFigure> figures;
    Animation animation;
    if (!gather(figures, animation).isEmpty()) return;
    working_ = true;
    const bool animated = isAnimation();
    const auto& formats = exportFormats();
    const auto index = static_cast<std::size_t>(as_->currentIndex());
    const ExportFormat* format = index < formats.size() ? &formats[index] : nullptr;
    for (QWidget* each : std::initializer_list<QWidget*>{of_, as_, values_, count_, seconds_, logarithmic_, toAndFro_,
                                                         folder_, choose_})
        each->setEnabled(false);
    progress_->setRange(0, static_cast<int>(animated ? 2 * animation.values.size() : figures.size()));
    progress_->setValue(0);
    progress_->show();
    start_->setText(tr("Stop"));
    summary_->setText(tr("writing…"));
    const auto show = [this](std::size_t done) {
        QMetaObject::invokeMethod(this, [this, done] { progress_->setValue(static_cast<int>(done)); });
    };
    worker_ = std::jthread([this, figures = std::move(figures), animation, animated, format,
                            show](const std::stop_token& stop) {
        QString said;
        if (animated) {
            ExportOptions options;
            const std::size_t count = animation.values.size();
            options.watch.stage = [&](std::string_view stage, std::size_t done, std::size_t) {
                show(stage == "drawing" ? count + done : done);
            };
            const Exported made = exportAnimation(figures[0].document, animation, stop, options);
            std::optional<Problem> problem =
                made.bytes ? writeFile(figures[0].target, *made.bytes) : std::optional(made.problem);
            said = problem ? spoken(*problem)
                           : tr("%1 written.").arg(QString::fromStdString(figures[0].target.filename().string()));
        } else {
            const SeriesWritten written =
                writeSeries(figures, *format, std::max(1U, std::thread::hardware_concurrency()), stop, {}, show);
            said = written.stopped ? tr("Stopped: %1 of %2 are written.").arg(written.files.size()).arg(figures.size())
                                   : tr("%1 written.").arg(written.files.size());
            for (std::size_t i = 0; i < std::min<std::size_t>(4, written.problems.size()); ++i)
                said += "\n" + spoken(written.problems[i]);
            if (written.problems.size() > 4) said += "\n" + tr("and %1 more").arg(written.problems.size() - 4);
        }
        QMetaObject::invokeMethod(this, [this, said] { finish(said); });
    });
}

void SeriesSheet::finish(const QString& said) {
    working_ = false;
    for (QWidget* each : std::initializer_list<QWidget*>{of_, as_, values_, count_, seconds_, logarithmic_, toAndFro_,
                                                         folder_, choose_})
        each->setEnabled(true);
    progress_->hide();
    start_->setText(tr("Write"));
    start_->setEnabled(true);
    summary_->setText(said);
}

} // namespace coulter
