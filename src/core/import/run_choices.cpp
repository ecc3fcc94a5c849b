// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/run_choices.h"

#include "core/clock/mount_history.h"
#include "core/distributions/summary.h"
#include "core/domain/lookup.h"
#include "core/evidence/run_rows.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace ibuki {
namespace {

constexpr double namedPowerShare = 0.02; ///< "150w" is a load of 147 to 153 W
constexpr double namedStepW = 5;         ///< a load found by its power is named to the nearest of these

/// A load of the study, there already or to be added.
struct LoadOption {
    std::optional<Id<Load>> load;
    std::string name;
    std::optional<double> nominalW; ///< its target, else the mean of its runs
    bool isStep = true;             ///< stated, not only found
};

/// One load found in one log.
struct Entry {
    std::size_t row = 0;
    std::size_t place = 0; ///< in the row's runs
    std::optional<double> powerW;
    std::optional<Instant> began;
    std::optional<std::size_t> option;
};

class Chooser {
public:
    Chooser(const Document& document, Id<Study> study, const std::vector<ImportedLog>& logs,
            const std::vector<StatedRow>& stated, std::vector<ImportRow>& rows)
        : document_(document), study_(study), logs_(logs), stated_(stated), rows_(rows) {}

    void choose() {
        for (ImportRow& row : rows_)
            std::erase_if(row.flags, [](const Flag& flag) {
                return flag.code == "taken-as-check" || flag.code == "loads-unlike";
            });
        gatherEntries();
        gatherOptions();
        takeStated();
        giveStatedTheirPower();
        for (const bool parted : {true, false}) byPower(parted);
        writeLoads();
        choosePurposes();
        flagUnlike();
    }

private:
    void gatherEntries() {
        for (std::size_t i = 0; i < rows_.size(); ++i) {
            if (!isOfMount(rows_[i])) continue;
            const auto& loads = logs_[i].reduction.loads;
            rows_[i].runs.assign(std::max<std::size_t>(1, loads.size()), {});
            for (std::size_t k = 0; k < rows_[i].runs.size(); ++k) {
                Entry entry{i, k, {}, rows_[i].atAssumed ? std::nullopt : rows_[i].at, {}};
                if (k < loads.size()) {
                    entry.powerW = loads[k].powerW;
                    const auto phase = loadPhase(loads[k]);
                    if (phase && entry.began) entry.began = laterBy(*entry.began, phase->startS);
                }
                entries_.push_back(entry);
            }
        }
    }

    static bool isOfMount(const ImportRow& row) { return !row.probeOf && !row.sameAs && !row.twinOf; }

    /// The study's loads by the mean power of their runs, where no target says it.
    void gatherOptions() {
        std::map<Id<Load>, std::vector<double>> powers;
        for (const Slot* slot : slotsOf(document_, study_)) {
            if (!slot->mount) continue;
            for (const Run* run : runsOf(document_, *slot->mount))
                if (const auto power = run->load ? runPowerW(document_, *run) : std::nullopt)
                    powers[*run->load].push_back(*power);
        }
        std::vector<const Load*> loads = document_.where(&Load::study, study_);
        std::stable_sort(loads.begin(), loads.end(),
                         [](const Load* a, const Load* b) { return a->position < b->position; });
        for (const Load* load : loads)
            options_.push_back({load->id, load->name,
                                load->target                ? std::optional(load->target->value)
                                : powers.contains(load->id) ? std::optional(mean(powers[load->id]))
                                                            : std::nullopt,
                                load->planned});
    }

    std::size_t optionCalled(const std::string& name) {
        const auto tokens = nameTokens(name);
        for (std::size_t i = 0; i < options_.size(); ++i)
            if (nameTokens(options_[i].name) == tokens) return i;
        options_.push_back({{}, name, {}});
        return options_.size() - 1;
    }

    std::size_t optionOfPower(double nominalW) {
        if (const auto near = nearest(nominalW, namedPowerShare)) return *near;
        const std::size_t named = optionCalled(fmt::format("{:.0f} W", nominalW));
        if (!options_[named].load) options_[named].nominalW = nominalW;
        return named;
    }

    std::optional<std::size_t> nearest(double powerW, double share) const {
        std::optional<std::size_t> best;
        double least = share + 1e-9; // a border that is reached counts
        for (std::size_t i = 0; i < options_.size(); ++i) {
            const auto& nominal = options_[i].nominalW;
            if (!nominal || *nominal <= 0) continue;
            const double off = std::abs(powerW / *nominal - 1);
            if (off > least || (best && off >= least)) continue;
            least = off;
            best = i;
        }
        return best;
    }

    /// A log of several loads under one name: those of the power of its longest are meant.
    bool isMeant(const Entry& entry) const {
        const Reduction& reduction = logs_[entry.row].reduction;
        const LoadReduction* main = reduction.main();
        if (reduction.loads.size() < 2 || !main || !main->powerW || !entry.powerW) return true;
        return !isUnlikePower(*entry.powerW, *main->powerW);
    }

    void takeStated() {
        for (Entry& entry : entries_) {
            const StatedRow& said = stated_[entry.row];
            if (!isMeant(entry)) continue;
            if (!said.load.empty())
                entry.option = optionCalled(said.load);
            else if (said.nominalW)
                entry.option = optionOfPower(*said.nominalW);
        }
    }

    /// A load made by a name has the mean power of its rows.
    void giveStatedTheirPower() {
        std::map<std::size_t, std::vector<double>> powers;
        for (const Entry& entry : entries_)
            if (entry.option && entry.powerW) powers[*entry.option].push_back(*entry.powerW);
        for (const auto& [option, values] : powers)
            if (!options_[option].nominalW) options_[option].nominalW = mean(values);
    }

    /// Another run of its mount has another power.
    bool isParted(const Entry& entry) const {
        if (!entry.powerW) return false;
        const ImportRow& row = rows_[entry.row];
        for (const Entry& other : entries_)
            if (other.powerW && isOneMount(rows_[other.row], row)
                && isUnlikePower(*other.powerW, *entry.powerW))
                return true;
        if (row.mount)
            for (const Run* run : runsOf(document_, *row.mount))
                if (const auto power = runPowerW(document_, *run);
                    power && isUnlikePower(*power, *entry.powerW))
                    return true;
        return false;
    }

    std::optional<std::size_t> onlyOption() const {
        return options_.size() == 1 ? std::optional<std::size_t>(0) : std::nullopt;
    }

    /// Of mounts with runs of several powers first; single ones then find the loads of those.
    void byPower(bool parted) {
        std::vector<std::size_t> open;
        for (std::size_t i = 0; i < entries_.size(); ++i)
            if (!entries_[i].option && isParted(entries_[i]) == parted) open.push_back(i);
        const auto only = parted ? std::nullopt : onlyOption();
        std::vector<std::size_t> unknown;
        for (std::size_t i : open) {
            Entry& entry = entries_[i];
            if (only)
                entry.option = only;
            else if (entry.powerW)
                entry.option = nearest(*entry.powerW, unlikePowerShare);
            if (!entry.option && entry.powerW) unknown.push_back(i);
        }
        makeOptions(unknown);
        for (std::size_t i : open)
            if (!entries_[i].option)
                entries_[i].option = options_.empty() ? optionCalled("sustained load") : 0;
    }

    /// Loads from powers: from the smallest up, as long as they keep to the mean of those before.
    void makeOptions(std::vector<std::size_t> unknown) {
        std::stable_sort(unknown.begin(), unknown.end(), [&](std::size_t a, std::size_t b) {
            return *entries_[a].powerW < *entries_[b].powerW;
        });
        std::vector<std::vector<std::size_t>> clusters;
        for (std::size_t i : unknown) {
            if (clusters.empty() || !keepsTo(clusters.back(), entries_[i])) clusters.emplace_back();
            clusters.back().push_back(i);
        }
        for (const auto& cluster : clusters) {
            const std::size_t option = addFound(meanPower(cluster));
            for (std::size_t i : cluster) entries_[i].option = option;
        }
    }

    double meanPower(const std::vector<std::size_t>& cluster) const {
        double sum = 0;
        for (std::size_t i : cluster) sum += *entries_[i].powerW;
        return sum / static_cast<double>(cluster.size());
    }

    bool keepsTo(const std::vector<std::size_t>& cluster, const Entry& entry) const {
        if (isUnlikePower(meanPower(cluster), *entry.powerW)) return false;
        return std::none_of(cluster.begin(), cluster.end(), [&](std::size_t i) {
            return isOneMount(rows_[entries_[i].row], rows_[entry.row])
                   && isUnlikePower(*entries_[i].powerW, *entry.powerW);
        });
    }

    /// Two that would be called alike are called by the watt.
    std::size_t addFound(double meanW) {
        double nominal = std::max(namedStepW, std::round(meanW / namedStepW) * namedStepW);
        const auto isTaken = [&](double watts) {
            const auto tokens = nameTokens(fmt::format("{:.0f} W", watts));
            return std::any_of(options_.begin(), options_.end(),
                               [&](const LoadOption& one) { return nameTokens(one.name) == tokens; });
        };
        if (isTaken(nominal)) nominal = std::round(meanW);
        std::string name = fmt::format("{:.0f} W", nominal);
        if (isTaken(nominal)) name = fmt::format("{:.1f} W", nominal = meanW);
        const bool isStep = std::none_of(options_.begin(), options_.end(),
                                         [](const LoadOption& one) { return one.load && one.isStep; });
        options_.push_back({{}, std::move(name), nominal, isStep});
        return options_.size() - 1;
    }

    void writeLoads() {
        for (const Entry& entry : entries_) {
            const LoadOption& option = options_[*entry.option];
            RunChoice& choice = rows_[entry.row].runs[entry.place];
            choice.load = option.load;
            if (option.load) continue;
            choice.newLoad = option.name;
            choice.newLoadW = option.nominalW;
            choice.isNewStep = option.isStep;
        }
    }

    /// When each run of that mount and load began, in the record and among the others that come.
    std::vector<Instant> begunBeside(const Entry& entry) const {
        std::vector<Instant> begun;
        const ImportRow& row = rows_[entry.row];
        for (const Entry& other : entries_)
            if (other.option == entry.option && other.began && isOneMount(rows_[other.row], row)
                && !rows_[other.row].excluded)
                begun.push_back(*other.began);
        const auto& load = options_[*entry.option].load;
        if (row.mount && load)
            for (const Run* run : runsOf(document_, *row.mount))
                if (const auto at = loadBegan(document_, *run); at && run->load == load && !run->rejected)
                    begun.push_back(*at);
        return begun;
    }

    void choosePurposes() {
        for (const Entry& entry : entries_) {
            ImportRow& row = rows_[entry.row];
            Purpose& purpose = row.runs[entry.place].purpose;
            const auto& said = stated_[entry.row].purpose;
            if (said == StatedPurpose::check) purpose = Purpose::check;
            if (said == StatedPurpose::conditioning) purpose = Purpose::conditioning;
            if (said || !entry.began) continue;
            for (const Instant earlier : begunBeside(entry)) {
                if (static_cast<double>(entry.began->ms - earlier.ms) <= laterLookH * 3.6e6) continue;
                purpose = Purpose::check;
                addFlag(row.flags, makeFlag(Severity::info, "taken-as-check"));
                break;
            }
        }
    }

    void flagUnlike() {
        for (const Entry& entry : entries_)
            for (const double power : powersBeside(entry))
                if (entry.powerW && isUnlikePower(power, *entry.powerW))
                    addFlag(rows_[entry.row].flags, makeFlag(Severity::warn, "loads-unlike"));
    }

    /// Powers of the runs that the entry is averaged with.
    std::vector<double> powersBeside(const Entry& entry) const {
        std::vector<double> powers;
        const ImportRow& row = rows_[entry.row];
        const Purpose purpose = row.runs[entry.place].purpose;
        if (row.excluded) return powers;
        for (const Entry& other : entries_) {
            const ImportRow& there = rows_[other.row];
            if (other.powerW && other.option == entry.option && !there.excluded && isOneMount(there, row)
                && there.runs[other.place].purpose == purpose)
                powers.push_back(*other.powerW);
        }
        const auto& load = options_[*entry.option].load;
        if (row.mount && load)
            for (const Run* run : runsOf(document_, *row.mount))
                if (const auto power = runPowerW(document_, *run);
                    power && run->load == load && run->purpose == purpose && !run->rejected)
                    powers.push_back(*power);
        return powers;
    }

    const Document& document_;
    Id<Study> study_;
    const std::vector<ImportedLog>& logs_;
    const std::vector<StatedRow>& stated_;
    std::vector<ImportRow>& rows_;
    std::vector<Entry> entries_;
    std::vector<LoadOption> options_;
};

} // namespace

void chooseRuns(const Document& document, Id<Study> study, const std::vector<ImportedLog>& logs,
                const std::vector<StatedRow>& stated, std::vector<ImportRow>& rows) {
    Chooser(document, study, logs, stated, rows).choose();
}

} // namespace ibuki
