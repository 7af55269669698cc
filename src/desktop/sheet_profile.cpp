// What a field is worth along a line that is selected, shown below its panel. See sheet_view.h.
#include "desktop/sheet_view.h"
#include "desktop/translation.h"

#include "notes/note_settings.h"
#include "notes/profile_edits.h"
#include "plots/handles.h"
#include "plots/telling.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

namespace coulter {

std::optional<SheetView::ProfileShown> SheetView::profileShown() const {
    const DrawnNote* line = drawnNote(selection_);
    if (!line || !line->kind->leads || line->at.size() != 2) return std::nullopt;
    if (static_cast<Anchor>(word(line->settings, anchorSetting)) != Anchor::Data) return std::nullopt;
    const PanelFigure& panel = figure_->figure.panels[selection_.panel];
    if (!panel.frame().isPlane()) return std::nullopt;
    // One that is kept has its panel; its ends are quantities of the page.
    const Note* note = noteAt(figure_->figure.document, selection_);
    const auto isNumber = [](const std::string& coordinate) {
        double value = 0;
        return isPlainNumber(coordinate, value);
    };
    const bool isKept = note && std::ranges::none_of(note->at, [&](const NotePlace& place) {
                            return std::ranges::any_of(place, isNumber);
                        });
    if (isKept) return std::nullopt;
    for (const Drawn& drawn : panel.drawn) {
        const Field* field = fieldOf(drawn);
        if (field && !field->isMargin && !field->isParametric()) return ProfileShown{selection_.panel, line, &drawn};
    }
    return std::nullopt;
}

QRectF SheetView::profileRect() const {
    const auto shown = profileShown();
    if (!shown) return {};
    const Rect& frame = figure_->figure.panels[shown->panel].frame().rect;
    const QPointF corner = toWidget({frame.x, frame.bottom()});
    const int lowest = height() - look_.look().px(8);
    const double tall = std::clamp(0.35 * frame.height * fit(), static_cast<double>(look_.look().px(90)),
                                   static_cast<double>(look_.look().px(180)));
    const double top = std::max(0.0, std::min(corner.y() + look_.look().px(6), lowest - tall));
    return {corner.x(), top, frame.width * fit(), tall};
}

void SheetView::placeProfileButton() {
    const QRectF rect = profileRect();
    if (rect.isEmpty()) return profileButton_->hide();
    const QSize size = profileButton_->sizeHint();
    profileButton_->setGeometry(static_cast<int>(rect.right()) - size.width() - 3, static_cast<int>(rect.top()) + 3,
                                size.width(), size.height());
    profileButton_->show();
}

const Profile& SheetView::profileOf(const ProfileShown& shown) const {
    const Frame& frame = figure_->figure.panels[shown.panel].frame();
    std::array<std::array<double, 2>, 2> ends{};
    for (std::size_t i = 0; i < 2; ++i) {
        const Point mm = shown.line->at[i];
        const double right = mm.x - frame.rect.x, up = frame.rect.bottom() - mm.y;
        ends[i] = {frame.leftwards ? frame.map.x.length - right : right,
                   frame.downwards ? frame.map.y.length - up : up};
    }
    if (profile_.figure != figure_ || profile_.ends != ends)
        profile_ = {figure_, ends, profileAlong(*shown.field, frame.map, ends[0], ends[1])};
    return profile_.profile;
}

void SheetView::paintProfile(QPainter& painter) const {
    const auto shown = profileShown();
    if (!shown) return;
    const Profile& profile = profileOf(*shown);
    double low = HUGE_VAL, high = -HUGE_VAL;
    for (const double value : profile.values) {
        if (!std::isfinite(value)) continue;
        low = std::min(low, value);
        high = std::max(high, value);
    }
    const Look& look = look_.look();
    const QRectF box = profileRect();
    painter.setPen(QPen(look.hairline(), 1));
    painter.setBrush(look.page());
    painter.drawRect(box);
    const QFontMetrics metrics(font());
    const int pad = look.px(6);
    painter.setPen(look.muted());
    const QString of = QString::fromStdString(shown->field->of);
    painter.drawText(box.adjusted(pad, 3, -pad, 0), Qt::AlignTop | Qt::AlignLeft, tr("%1 along the line").arg(of));
    if (!(low <= high)) {
        painter.drawText(box, Qt::AlignCenter, tr("It has no values there."));
        return;
    }
    const QString highest = QString::fromStdString(printedNumber(high, 4)),
                  lowest = QString::fromStdString(printedNumber(low, 4));
    const int wide = std::max(metrics.horizontalAdvance(highest), metrics.horizontalAdvance(lowest)) + pad;
    const QRectF plot = box.adjusted(pad + wide, profileButton_->sizeHint().height() + look.px(10), -pad, -pad);
    painter.drawText(QRectF(box.left(), plot.top() - metrics.height() / 2.0, wide, metrics.height()),
                     Qt::AlignRight | Qt::AlignVCenter, highest);
    painter.drawText(QRectF(box.left(), plot.bottom() - metrics.height() / 2.0 - 2, wide, metrics.height()),
                     Qt::AlignRight | Qt::AlignVCenter, lowest);
    painter.setPen(QPen(look.hairline(), 1));
    painter.drawLine(plot.topLeft(), plot.bottomLeft());
    QPainterPath curve;
    bool isGap = true;
    for (std::size_t i = 0; i < profile.values.size(); ++i) {
        const double value = profile.values[i];
        if (!std::isfinite(value)) {
            isGap = true;
            continue;
        }
        const double share = high > low ? (value - low) / (high - low) : 0.5;
        const QPointF at(plot.left() +
                             plot.width() * static_cast<double>(i) / static_cast<double>(profile.values.size() - 1),
                         plot.bottom() - plot.height() * share);
        isGap ? curve.moveTo(at) : curve.lineTo(at);
        isGap = false;
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(look.ink(), 1.4));
    painter.drawPath(curve);
}

void SheetView::keepProfile() {
    const auto shown = profileShown();
    if (!shown) return;
    const auto document = editable(selection_);
    if (!document) return;
    const PanelMap& map = figure_->figure.panels[shown->panel].frame().map;
    auto made = withProfile(*document, selection_, shown->field->path, {map.x.kind, map.y.kind});
    if (const Problem* problem = std::get_if<Problem>(&made)) return emit refused(spoken(*problem));
    session_.edit(std::move(std::get<Document>(made)), tr("profile along a line"));
}

} // namespace coulter
