// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/tape_layout.h"

#include "app/say.h"
#include "app/session/amount_text.h"
#include "app/session/qtext.h"
#include "core/base/input_error.h"
#include "core/caution/blocking_caution.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/response.h"
#include "core/setup/follow_ups.h"
#include "core/setup/next_step.h"
#include "core/setup/plan_setup.h"
#include "store/calendar/calendar.h"

#include <algorithm>
#include <set>

namespace ibuki {
namespace {

QString dayOrNone(const std::optional<Instant>& at) {
    if (!at) return say("no date");
    return dayText(*at);
}

const LoadReduction* figuresOf(const Document& document, const Mount& mount, Metric metric) {
    const auto runs = runsOf(document, mount.id);
    if (runs.empty()) return nullptr;
    const Reduction* reduction = reductionOf(document, runs.front()->id);
    return reduction ? loadOf(*reduction, *runs.front(), metric) : nullptr;
}

void addFigure(TapeTile& tile, const Document& document, const Mount& mount, const Question* question) {
    const Question asked = question ? *question : Question{};
    const LoadReduction* load = figuresOf(document, mount, asked.metric);
    if (!load) {
        const auto runs = runsOf(document, mount.id);
        const bool open =
            !runs.empty() && document.find(runs.back()->recording)->state == RecordingState::open;
        tile.value = open ? say("recording") : say("no run");
        return;
    }
    tile.censored = load->limit.censored;
    const auto response = responseOf(*load, asked);
    if (!response) {
        tile.value = say("no figure");
        return;
    }
    const std::string_view unit = responseUnit(asked);
    tile.value = QString("%1%2 %3")
                     .arg(tile.censored ? "≥ " : "Δ ")
                     .arg(*response, 0, 'f', responseDigits(unit).glanced)
                     .arg(qtext(unit));
}

/// Texts of days, made once for all the mounts of one.
class DayTexts {
public:
    QString operator()(const std::optional<Instant>& at) {
        const std::int64_t day = at ? dayNumber(*at) : -1;
        if (text_.isNull() || day != day_ || !at) text_ = dayOrNone(at);
        day_ = day;
        return text_;
    }

private:
    std::int64_t day_ = -1;
    QString text_;
};

void addLook(TapeTile& tile, const Document& document, const Mount& mount) {
    for (const JointInspection* look : document.where(&JointInspection::mount, mount.id)) {
        tile.looked = true;
        for (const JointPicture* picture : document.where(&JointPicture::look, look->id))
            if (picture->covered) tile.covered = picture->covered;
    }
}

void describeMount(TapeTile& tile, const Document& document, const Mount& mount,
                   std::optional<Id<Study>> study) {
    tile.described = true;
    tile.title = QString::fromStdString(mount.name);
    tile.state = mount.rejected ? TileState::rejected : TileState::done;
    const Slot* slot = study ? slotOf(document, *study, mount.id) : nullptr;
    const Question* question = study ? firstQuestion(document, *study) : nullptr;
    tile.otherStudy = !slot;
    tile.isCheck = slot && slot->kind == SlotKind::checkMount;
    if (question)
        if (const Material* material = materialAt(document, mount.id, question->site))
            tile.kind = material->kind;
    addFigure(tile, document, mount, question);
    addLook(tile, document, mount);
    tile.detail = tile.title;
    if (mount.at)
        tile.detail += QString(", %1%2").arg(QString::fromStdString(dateTimeText(*mount.at)),
                                             mount.atAssumed ? say(" (assumed)") : "");
    if (mount.rejected) tile.detail += say(", rejected: ") + QString::fromStdString(mount.reason);
    if (tile.censored) tile.detail += say(", at the temperature limit");
    if (tile.covered) tile.detail += say(", %1 % covered").arg(100 * *tile.covered, 0, 'f', 0);
    tile.detail += "\n" + say("At its right end: the look at its joint (P)");
}

/// Of the plan's zone; as it stands where the zone is not known here.
WallClock clockOf(const Document& document, Id<Study> study) {
    const Plan* plan = planOf(document, study);
    try {
        return plan ? wallClockOf(plan->zone) : WallClock{};
    } catch (const InputError&) {
        return {};
    }
}

TapeTile plannedTile(const Document& document, const Slot& slot, TileState state) {
    TapeTile tile;
    tile.slot = slot.id;
    const Level* level = document.find(slot.level);
    const Level* second = document.find(slot.second);
    tile.isCheck = slot.kind == SlotKind::checkMount;
    tile.title = level ? QString::fromStdString(level->name) : say("mount");
    if (second) tile.title += ", " + QString::fromStdString(second->name);
    if (tile.isCheck) tile.title = say("Check");
    if (slot.kind == SlotKind::baseline) tile.title = say("Baseline");
    if (const Material* material = level ? document.find(level->material) : nullptr)
        tile.kind = material->kind;
    tile.state = state;
    tile.value = state == TileState::next      ? say("next")
                 : state == TileState::skipped ? say("skipped")
                 : state == TileState::draft   ? say("draft")
                                               : say("planned");
    tile.day = slot.plannedFor ? dayText(*slot.plannedFor) : say("planned");
    tile.detail = tile.title;
    if (state == TileState::next) tile.detail += say(": what to do next");
    if (state == TileState::planned) tile.detail += say(": planned");
    if (state == TileState::draft) tile.detail += say(": as the plan stands; it is not on the tape yet");
    if (state == TileState::skipped)
        tile.detail += say(", skipped: ") + QString::fromStdString(slot.skippedBecause);
    return tile;
}

/// Later runs of the study's mounts, those still to come, by date.
std::vector<TapeTile> laterTiles(const Document& document, Id<Study> study, Instant now) {
    std::vector<std::pair<std::int64_t, TapeTile>> dated;
    const WallClock clock = clockOf(document, study);
    for (const Slot* slot : slotsOf(document, study))
        for (const FollowUp* later : document.where(&FollowUp::slot, slot->id)) {
            const auto check = dueCheck(document, *later, now, clock);
            if (!check) continue;
            TapeTile tile = plannedTile(document, *slot, TileState::planned);
            tile.followUp = later->id;
            if (const Mount* mount = document.find(slot->mount)) {
                tile.mount = mount->id;
                tile.title = QString::fromStdString(mount->name);
            }
            tile.value = say("after ") + QString::fromStdString(later->after.text());
            tile.day = dayOrNone(check->due);
            tile.detail = say("Come back to %1 after %2, on %3")
                              .arg(tile.title, QString::fromStdString(later->after.text()),
                                   QString::fromStdString(dateTimeText(check->due)));
            if (check->state != DueState::later) tile.detail += ": " + sayText(dueMessage(*check, now));
            tile.isLate = check->state == DueState::overdue || check->state == DueState::lost;
            if (check->state == DueState::due) tile.value = say("due, ") + tile.value;
            if (check->state == DueState::overdue) tile.value = say("overdue, ") + tile.value;
            if (check->state == DueState::lost) tile.value = say("lost, ") + tile.value;
            dated.emplace_back(check->due.ms, tile);
        }
    std::stable_sort(dated.begin(), dated.end(),
                     [](const auto& a, const auto& b) { return a.first < b.first; });
    std::vector<TapeTile> tiles;
    for (auto& [ms, tile] : dated) tiles.push_back(std::move(tile));
    return tiles;
}

} // namespace

void describe(TapeTile& tile, const Document& document, std::optional<Id<Study>> study) {
    const Mount* mount = tile.described ? nullptr : document.find(tile.mount);
    if (mount) describeMount(tile, document, *mount, study);
}

std::vector<TapeTile> tapeTiles(const Document& document, std::optional<Id<Bench>> bench,
                                std::optional<Id<Study>> study, Instant now) {
    auto tiles = tapeOutline(document, bench, study, now);
    for (TapeTile& tile : tiles) describe(tile, document, study);
    return tiles;
}

std::vector<TapeTile> tapeOutline(const Document& document, std::optional<Id<Bench>> bench,
                                  std::optional<Id<Study>> study, Instant now) {
    std::vector<TapeTile> tiles;
    if (!bench) return tiles;
    DayTexts days;
    for (const Mount* mount : mountsOf(document, *bench)) {
        TapeTile& tile = tiles.emplace_back();
        tile.mount = mount->id;
        tile.day = days(mount->at);
        tile.described = false;
    }
    if (!study) return tiles;
    std::set<Id<Material>> held;
    if (const Question* question = firstQuestion(document, *study))
        for (const BlockingCaution& blocking : blockingCautions(document, *question, now))
            held.insert(blocking.material);
    bool first = true;
    for (const Slot* slot : slotsOf(document, *study)) {
        if (slot->mount) continue;
        const bool skipped = !slot->skippedBecause.empty();
        tiles.push_back(plannedTile(document, *slot,
                                    skipped ? TileState::skipped
                                    : first ? TileState::next
                                            : TileState::planned));
        const Level* level = document.find(slot->level);
        tiles.back().isHeld = level && level->material && held.contains(*level->material);
        first = first && skipped;
    }
    for (const Slot& slot : draftedSlots(document, *study, now, clockOf(document, *study))) {
        TapeTile tile = plannedTile(document, slot, TileState::draft);
        tile.slot.reset();
        tiles.push_back(std::move(tile));
    }
    for (TapeTile& tile : laterTiles(document, *study, now)) tiles.push_back(std::move(tile));
    return tiles;
}

int TapeLayout::tileAt(double x, double y) const {
    const int tile = firstRightOf(x);
    return tile < static_cast<int>(rects.size()) && rects[static_cast<std::size_t>(tile)].contains(x, y)
               ? tile
               : -1;
}

int TapeLayout::firstRightOf(double x) const {
    const auto reaches = [](const QRectF& rect, double at) { return rect.right() <= at; };
    return static_cast<int>(std::lower_bound(rects.begin(), rects.end(), x, reaches) - rects.begin());
}

QRectF peelPart(const QRectF& tile) {
    constexpr double width = 20;
    return {tile.right() - width - 2, tile.top() + 2, width, tile.height() - 4};
}

TapeLayout layoutTape(const std::vector<TapeTile>& tiles, double tileWidth, double height, double dayHeight) {
    TapeLayout layout;
    double x = 8;
    QString day;
    for (const TapeTile& tile : tiles) {
        if (tile.day != day) {
            if (!layout.rects.empty()) x += 10;
            layout.notches.push_back({x, tile.day});
            x += 8;
            day = tile.day;
        }
        layout.rects.emplace_back(x, dayHeight, tileWidth, height - dayHeight - 6);
        x += tileWidth + 6;
    }
    layout.width = x + 8;
    return layout;
}

} // namespace ibuki
