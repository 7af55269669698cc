#pragma once
#include <QComboBox>

namespace coulter {

/// A choice that looks like the other fields: text on a line, with a small angle at its end.
class ChoiceField : public QComboBox {
protected:
    void paintEvent(QPaintEvent* event) override;
};

} // namespace coulter
