#pragma once
#include "desktop/form_fields.h"
#include "desktop/sheet_view.h"

#include <QScrollArea>
#include <functional>

namespace coulter {

/// What can be set of the thing selected on the sheet: a plot, a scale, the legend, or the sheet itself.
class Particulars : public QScrollArea {
    Q_OBJECT
public:
    Particulars(DocumentSession& session, SheetView& sheet, const LookSettings& look, QWidget* parent = nullptr);

private:
    void rebuild();
    void refresh();
    /// What decides which fields there are.
    QString shape() const;
    bool showsSpace() const;
    /// Where more points can be asked for of the plot that is shown; none if they cannot.
    std::optional<Limits> refinableNow() const;
    /// An edit of the document; none if what is selected is no longer there.
    void change(const QString& what, const std::function<void(Document&)>& apply, const QString& mergeKey = {});
    void changePlot(const QString& what, const std::function<void(Plot&)>& apply, const QString& mergeKey = {});
    void plotFields(FormFields& fields);
    void finerRow(FormFields& fields);
    void scaleFields(FormFields& fields);
    void legendField(FormFields& fields, const QString& name);
    void sheetFields(FormFields& fields);
    void panelFields(FormFields& fields);
    void noteFields(FormFields& fields);
    void scaleField(FormFields& fields);
    void furtherRow(FormFields& fields);
    bool isPanel() const; ///< whether a panel is selected
    std::size_t furtherCount() const;
    Plot plotShown() const;

    DocumentSession& session_;
    SheetView& sheet_;
    const LookSettings& look_;
    FormFields* fields_ = nullptr;
    ItemPath path_; ///< whose fields are shown
    QString shape_;
    bool memberAlone_ = false; ///< what is set is of one member of a family alone
    bool unfolded_ = false;    ///< whether settings that are rarely wanted are shown
};

} // namespace coulter
