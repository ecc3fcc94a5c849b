// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Where logs that are brought in belong, as far as their names, their times and the plan tell: a proposal a
// log, for the user to change.

#include "core/base/message.h"
#include "core/domain/edit.h"
#include "core/domain/run_reduction.h"
#include "core/domain/study.h"
#include "core/import/log_name.h"
#include "core/trace/trace.h"

namespace ibuki {

/// A log that was read and reduced, before anybody said where it belongs.
struct ImportedLog {
    std::string fileName; ///< without folders
    std::string sha256;
    std::int64_t bytes = 0;
    std::optional<Instant> fileTime; ///< last change of the file, for logs without a date
    Message readAs;                  ///< how the text was read, for the record
    Trace trace;
    ReduceSettings settings; ///< that the reduction was made with
    Reduction reduction;
    std::optional<StatedFigures> figures; ///< it is no log: figures that were stated, and their reduction
};

/// What one load of a log becomes.
struct RunChoice {
    std::optional<Id<Load>> load;
    std::string newLoad;            ///< name of a load that is added, where there is none
    std::optional<double> newLoadW; ///< its nominal power
    bool isNewStep = false;         ///< it is a step of the study, and was not only found
    Purpose purpose = Purpose::fresh;
    bool operator==(const RunChoice&) const = default;
};

/// One line of the import table; the user may change every member.
struct ImportRow {
    bool take = true;
    std::optional<Id<Level>> level;
    std::string newLevel;                    ///< name of a level that is added, where there is none
    std::optional<Id<Material>> newMaterial; ///< of that level
    std::optional<Id<Level>> second;         ///< of the second factor, where there is one
    SlotKind kind = SlotKind::level;
    std::optional<Id<Slot>> slot;       ///< that a new mount fills; nothing: the first one that fits
    std::optional<std::size_t> probeOf; ///< it is the room probe of that log, and no mount of its own
    std::optional<Id<Mount>> mount;     ///< an existing mount (a repeated run); nothing: a new mount
    std::string mountName;              ///< of a new mount; rows of one level and name are one mount
    std::vector<RunChoice> runs;        ///< of each load in it; empty: told by the study's steps alone
    std::optional<int> run;             ///< its number inside mount, load and purpose; nothing: the next
    bool excluded = false;              ///< the run does not count
    std::optional<double> ageH;         ///< as stated, since the mount was made
    std::optional<double> cycles;
    std::optional<EnteredAmbient> room; ///< as stated, where the log has none
    std::string rejected;               ///< why the mount does not count
    std::string remark;
    std::vector<Flag> flags; ///< of where it belongs; those of its figures are the reduction's
    std::optional<Instant> at;
    bool atAssumed = false;
    std::optional<Instant> when;         ///< the log began, as stated in place of its own time
    std::optional<Id<Recording>> sameAs; ///< a recording with the same bytes is there already
    std::optional<std::size_t> twinOf;   ///< an earlier log of these has the same bytes
    std::optional<Message> doubt;        ///< why the row wants a look, or empty
};

/// For the user to look at: a level whose words are like the file's name, else the plan's next open slots in
/// the order of time; what names neither wants a look.
std::vector<ImportRow> proposeImport(const Document& document, Id<Study> study,
                                     const std::vector<ImportedLog>& logs);

/// As stated of each log, by the rules of docs/cli.md (import): levels and loads that are not there are
/// added, what differs in power inside a mount are different loads, what comes half a day later is a later
/// look. Throws InputError (import-no-level) where a row of a table names none.
std::vector<ImportRow> proposeImport(const Document& document, Id<Study> study,
                                     const std::vector<ImportedLog>& logs,
                                     const std::vector<StatedRow>& stated);

/// What names of files may refer to in the study.
KnownNames knownNames(const Document& document, Id<Study> study);
std::vector<StatedRow> statedByNames(const std::vector<ImportedLog>& logs, const KnownNames& known);

/// A log that reads the room and no chip is the probe of the log that it shares the most time with. Time: the
/// log's own, else the file's, marked assumed. Rows are in the order of the logs.

/// What the row's level is called, with its second level; empty where neither is known.
std::string levelTitle(const Document& document, const ImportRow& row);
/// Both are runs of one mount, be it there or new.
bool isOneMount(const ImportRow& a, const ImportRow& b);

/// "2" of a mount "Tern 11 2" of the level Tern 11: what it is called inside its level; else its whole name.
std::string mountLabel(const std::string& mount, const std::string& level);

/// What a new mount of the row's level is called: the level and the next number that neither the bench nor
/// another row has. As before where no level is known.
std::string nextMountName(const Document& document, Id<Study> study, const std::vector<ImportRow>& rows,
                          std::size_t row);

/// It has a room and nothing of a chip.
bool readsOnlyAmbient(const Trace& trace);

/// Which log each log is the room probe of; nothing for a log of a chip, or where none fits.
std::vector<std::optional<std::size_t>> probesAmong(const std::vector<ImportedLog>& logs);

/// The rows' indexes by time; those without one last.
std::vector<std::size_t> rowsByTime(const std::vector<ImportRow>& rows);

/// Planned slots of the study that nothing fills yet, in order.
std::vector<const Slot*> openSlots(const Document& document, Id<Study> study);
/// The slot is for what the row says it is.
bool fits(const Slot& slot, const ImportRow& row);

} // namespace ibuki
