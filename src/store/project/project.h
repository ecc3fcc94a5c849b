// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// One *.ibuki project: a SQLite database that is always up to date (there is no Save). A user action is one
// ChangeSet, one transaction and one line of history. docs/file-format.md has the schema.

#include "core/domain/edit.h"
#include "core/domain/mount.h"
#include "core/trace/trace.h"
#include "store/project/recording_journal.h"

#include <filesystem>
#include <memory>
#include <span>
#include <string>
#include <vector>

namespace ibuki {

/// The channels of a recording that a change set adds.
struct RecordingData {
    Id<Recording> id;
    Trace trace;
};

/// The bytes of a picture, kept as they came; values refer to it by its digest.
struct StoredFile {
    std::string sha256;
    std::string bytes;
};
StoredFile storedFile(std::string bytes);

/// What an action brings that no change set holds: facts that are written once. Undoing the action leaves
/// them where they are, so that nothing acquired is ever overwritten; live recordings will be appended beside
/// change sets in the same way.
struct Acquired {
    std::vector<RecordingData> recordings;
    std::vector<StoredFile> files;
};

struct HistoryLine {
    std::int64_t number = 0;
    std::string at;     ///< UTC, ISO 8601
    std::string action; ///< "do", "undo", "redo"
    Message title;
    std::string changes; ///< JSON: table, id, before, after of the members that differ
};

enum class Access { readWrite, readOnly };
/// Whether stored reductions are read with the rest, or each when it is asked for: what asks for a damaged
/// one then throws InputError (project-damaged).
enum class Decode { now, whenAsked };
enum class Direction { forward, undo, redo };

class Project {
public:
    /// A new, empty project. Throws InputError (file-exists, file-not-writable, project-locked).
    static Project create(const std::filesystem::path& path);

    /// Today's format is newestFormat (migrations.h). Throws InputError: file-missing, project-not-one,
    /// project-newer, project-damaged, project-locked (another writer has it), file-not-writable. An older
    /// file is copied beside itself first, then migrated. A recording that was open when its program ended is
    /// interrupted from now on, with what it had stored.
    static Project open(const std::filesystem::path& path, Access access = Access::readWrite,
                        Decode decode = Decode::now);

    Project(Project&&) noexcept;
    Project& operator=(Project&&) noexcept;
    ~Project();

    const std::filesystem::path& path() const;
    const Document& document() const;

    /// One transaction: rows, what was acquired with them, a line of history. On any failure nothing has
    /// changed, in the file or here, and InputError says why (file-not-writable, project-moved).
    void apply(const ChangeSet& set, const Acquired& acquired = {}, Direction direction = Direction::forward);

    /// Empty where figures were stated without a log.
    Trace loadTrace(Id<Recording> id) const;
    /// What is stored of a recording that is being made here, or was interrupted.
    LiveExtent liveExtentOf(Id<Recording> id) const;
    /// Opened read-only while another program has it: what it records is still growing.
    bool isWrittenElsewhere() const;
    /// The same with the recording's room probe laid beside it, by the stated shift or, without one, as
    /// found.
    Trace loadWithProbe(Id<Recording> id, std::optional<double> statedShiftS) const;
    /// A file that values refer to by its digest. Throws InputError (project-damaged) when it is not there.
    std::string loadFile(const std::string& digest) const;
    std::vector<HistoryLine> history() const;

    /// A finished file, written beside and put in place at once. Refuses the project's own path.
    void saveCopy(const std::filesystem::path& target) const;

private:
    struct State;
    void closeInterrupted();
    explicit Project(std::unique_ptr<State> state);
    std::unique_ptr<State> state_;
};

} // namespace ibuki
