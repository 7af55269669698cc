#pragma once
#include "desktop/sheet_view.h"

#include <QLabel>
#include <QScrollArea>
#include <functional>

class QCheckBox;
class QFormLayout;
class QComboBox;
class QLineEdit;
class QDoubleSpinBox;

namespace coulter {

/// What can be set of the thing selected on the sheet: a curve, an axis, the legend, or the sheet itself.
class Particulars : public QScrollArea {
    Q_OBJECT
public:
    Particulars(DocumentSession& session, SheetView& sheet, const LookSettings& look, QWidget* parent = nullptr);

private:
    using Change = std::function<void(Document&)>;

    void rebuild();
    bool showsSpace() const;
    void refresh();
    void change(const QString& what, const Change& change, const QString& mergeKey = {});
    void curveFields(QFormLayout& form);
    void fieldFields(QFormLayout& form);
    void finerRow(QFormLayout& form);
    void axisFields(QFormLayout& form, Axis coulter::Panel::*which); // QFrame has a Panel of its own
    const Plot& plotShown(std::size_t plot) const;
    void changePlot(std::size_t plot, const QString& what, const std::function<void(Plot&)>& apply,
                    const QString& mergeKey = {});
    void legendField(QFormLayout& form, const QString& name);
    void sheetFields(QFormLayout& form);
    std::size_t selectedPlot() const;

    QLineEdit* textField(QFormLayout& form, const QString& name, const std::function<QString()>& read,
                         const std::function<void(const QString&)>& write);
    QDoubleSpinBox* numberField(QFormLayout& form, const QString& name, double least, double greatest, int decimals,
                                double step, const QString& unit, const std::function<double()>& read,
                                const std::function<void(double)>& write);
    QCheckBox* checkField(QFormLayout& form, const QString& name, const QString& meaning,
                          const std::function<bool()>& read, const std::function<void(bool)>& write);
    QComboBox* choiceField(QFormLayout& form, const QString& name, const QStringList& choices,
                           const std::function<int()>& read, const std::function<void(int)>& write);

    DocumentSession& session_;
    SheetView& sheet_;
    const LookSettings& look_;
    std::vector<std::function<void()>> refreshers_;
    Selection built_;
    bool builtForSpace_ = false;
    bool refreshing_ = false;
};

} // namespace coulter
