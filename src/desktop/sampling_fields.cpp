#include "desktop/sampling_fields.h"

#include "desktop/choice_field.h"
#include "figure/edits.h"
#include "formula/base/text.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>

namespace coulter {
namespace {

constexpr double usualCount = 101;

} // namespace

SamplingFields::SamplingFields(DocumentSession& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(5);
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        Row& row = rows_[i];
        row.name = new QLabel;
        row.way = new ChoiceField;
        row.way->addItems({tr("adaptive"), tr("count"), tr("step")});
        row.way->setObjectName(i == 0 ? "samplingWay" : "samplingWayUp");
        row.value = new QLineEdit;
        row.value->setFixedWidth(56);
        row.value->setObjectName(i == 0 ? "samplingValue" : "samplingValueUp");
        layout->addWidget(row.name);
        layout->addWidget(row.way);
        layout->addWidget(row.value);
        connect(row.way, &QComboBox::activated, this, [this, i](int way) {
            Row& changed = rows_[i];
            const double width = changed.interval.high - changed.interval.low;
            changed.value->setText(QString::fromStdString(
                shortestNumber(way == static_cast<int>(SamplingWay::Count) ? usualCount : width / (usualCount - 1))));
            apply(i);
        });
        connect(row.value, &QLineEdit::editingFinished, this, [this, i] {
            if (rows_[i].value->isModified()) apply(i);
        });
    }
}

void SamplingFields::show(const std::vector<VariableSampling>& variables) {
    setVisible(!variables.empty()); // columns are sampled nowhere else than they are
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        Row& row = rows_[i];
        const bool shown = i < variables.size();
        for (QWidget* each : std::initializer_list<QWidget*>{row.name, row.way, row.value}) each->setVisible(shown);
        if (!shown) continue;
        const Grid& grid = variables[i].grid;
        row.variable = variables[i].variable;
        row.interval = variables[i].interval;
        const QString name = QString::fromStdString(row.variable);
        row.name->setText(name + ":");
        row.way->setAccessibleName(tr("sampling of %1").arg(name));
        row.value->setAccessibleName(tr("count or step of %1").arg(name));
        const SamplingWay way = samplingWay(grid);
        row.way->setItemText(0, variables[i].isMeasured ? tr("measured") : tr("adaptive"));
        row.way->setCurrentIndex(static_cast<int>(way));
        row.value->setVisible(way != SamplingWay::Adaptive);
        if (row.value->hasFocus() && row.value->isModified()) continue;
        const double value = way == SamplingWay::Count ? *grid.count : grid.step.value_or(0);
        const QString text = QString::fromStdString(shortestNumber(value));
        if (row.value->text() != text) row.value->setText(text); // a selection in it stays
    }
}

void SamplingFields::apply(std::size_t index) {
    Row& row = rows_[index];
    row.value->setModified(false);
    const auto changed =
        withSampling(session_.document(), row.variable, static_cast<SamplingWay>(row.way->currentIndex()),
                     row.value->text().replace(QChar(0x2212), '-').toStdString());
    if (changed) session_.edit(*changed, tr("change of the sampling of %1").arg(QString::fromStdString(row.variable)));
}

} // namespace coulter
