// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/project.h"

#include "core/domain/input_error.h"
#include "core/reduce/probe.h"
#include "store/atomic_file.h"
#include "store/project/file_lock.h"
#include "store/project/packing.h"
#include "store/project/rows.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <algorithm>
#include <cstdlib>
#include <fmt/format.h>
#include <sqlite3.h>
#include <sys/stat.h>
#include <unistd.h>

namespace ibuki {
namespace {

/// Which file a path stood for when the project was opened.
struct FileIdentity {
    dev_t device = 0;
    ino_t inode = 0;
    bool operator==(const FileIdentity&) const = default;
};

std::optional<FileIdentity> identityOf(const std::filesystem::path& path) {
    struct stat info {};
    if (::stat(path.c_str(), &info) != 0) return std::nullopt;
    return FileIdentity{info.st_dev, info.st_ino};
}

InputError::Where at(const std::filesystem::path& path) { return {path.string(), {}, {}}; }

[[noreturn]] void rethrow(const std::filesystem::path& path, const SQLite::Exception& error) {
    switch (error.getErrorCode()) {
    case SQLITE_FULL:
        throw InputError("disk-full", at(path), "the disk is full, nothing was changed",
                         "Make room and try again");
    case SQLITE_READONLY:
    case SQLITE_CANTOPEN:
    case SQLITE_PERM:
        throw InputError("file-not-writable", at(path), "the project cannot be opened or written there",
                         "Choose a folder that exists and that you may write to");
    case SQLITE_BUSY:
    case SQLITE_LOCKED:
        throw InputError("project-locked", at(path), "another program is using this project",
                         "Close it there");
    case SQLITE_NOTADB:
        throw InputError("project-not-one", at(path), "this is not an Ibuki project",
                         "Choose a file that ends in .ibuki");
    case SQLITE_IOERR:
        throw InputError("file-not-writable", at(path),
                         "reading or writing the project failed, nothing was changed",
                         "Check the disk and its free room");
    default:
        throw InputError("project-damaged", at(path),
                         fmt::format("the project is damaged ({})", error.getErrorStr()),
                         "Open a copy made earlier");
    }
}

void createTables(SQLite::Database& database) {
    database.exec("CREATE TABLE history (number INTEGER PRIMARY KEY, at TEXT NOT NULL, action TEXT NOT NULL, "
                  "title TEXT NOT NULL, changes TEXT NOT NULL) STRICT");
    database.exec("CREATE TABLE sequence (next_id INTEGER NOT NULL) STRICT");
    database.exec("INSERT INTO sequence VALUES (1)");
    for (const std::string& statement : entityTables()) database.exec(statement);
    database.exec(
        "CREATE TABLE channel (recording INTEGER NOT NULL REFERENCES recording(id) DEFERRABLE INITIALLY "
        "DEFERRED, position INTEGER NOT NULL, log_column TEXT NOT NULL, role TEXT NOT NULL, "
        "idx INTEGER NOT NULL, unit INTEGER NOT NULL, kind TEXT NOT NULL, samples INTEGER NOT NULL, "
        "data BLOB NOT NULL, PRIMARY KEY (recording, position)) STRICT");
    database.exec(
        "CREATE TABLE time_axis (recording INTEGER PRIMARY KEY REFERENCES recording(id) DEFERRABLE "
        "INITIALLY DEFERRED, samples INTEGER NOT NULL, clock_jumps INTEGER NOT NULL, gaps INTEGER NOT "
        "NULL, duplicates INTEGER NOT NULL, data BLOB NOT NULL) STRICT");
}

/// Format 2, the shelf: yes/no answers that may be unstated, a lot's condition and unit as words, new tables
/// and columns. A "no" of format 1 was only an unticked box.
void extendShelf(SQLite::Database& database) {
    addMissingColumns(database);
    const auto move = [&](const char* table, const char* from, const std::string& statement) {
        if (!hasColumn(database, table, from)) return; // a new project never had it
        database.exec(statement);
        database.exec(fmt::format("ALTER TABLE {} DROP COLUMN {}", table, from));
    };
    move("material", "conducts_electricity",
         "UPDATE material SET conducts = 'yes' WHERE conducts_electricity = 1");
    move("material", "contains_gallium", "UPDATE material SET gallium = 'yes' WHERE contains_gallium = 1");
    move("material", "reusable", "UPDATE material SET used_again = 'yes' WHERE reusable = 1");
    move("site", "exposed_contacts", "UPDATE site SET contacts_near = 'yes' WHERE exposed_contacts = 1");
    // What has no word of its own now goes to the remarks, so that nothing is lost.
    move("lot", "condition",
         "UPDATE lot SET opened_condition = CASE WHEN condition LIKE '%oil%' THEN 'oily' "
         "WHEN condition LIKE '%crack%' THEN 'cracked' WHEN condition LIKE '%dry%' THEN 'dry' "
         "WHEN condition = 'even' THEN 'even' ELSE 'not stated' END, "
         "note = CASE WHEN condition IN ('', 'even', 'oily', 'dry', 'cracked') THEN note "
         "ELSE trim(condition || '. ' || note) END");
    database.exec("UPDATE lot SET content_unit = 'mm²' WHERE content_unit IN ('mm2', 'mm^2', 'sq mm')");
    database.exec("UPDATE lot SET content_unit = 'mL' WHERE content_unit IN ('ml', 'cc')");
    database.exec("UPDATE lot SET content_unit = 'g' WHERE content_unit IN ('', 'gram', 'grams')");
    database.exec("UPDATE lot SET content_unit = 'sheets' WHERE content_unit IN ('sheet', 'pcs')");
    database.exec(
        "UPDATE lot SET note = trim('content in ' || content_unit || '. ' || note), content_unit = 'g' "
        "WHERE content_unit NOT IN ('g', 'mL', 'mm²', 'sheets')");
    // Mounts did not take from a lot before: what was stated as remaining still is.
    database.exec("UPDATE lot SET taken_before = coalesce((SELECT sum(amount_g) FROM application "
                  "WHERE application.lot = lot.id), 0) WHERE remaining IS NOT NULL AND content_unit = 'g'");
}

/// Format 3, the plan: new tables and columns; every study there is gets a plan to begin with.
void addPlans(SQLite::Database& database) {
    addMissingColumns(database);
    std::int64_t next = database.execAndGet("SELECT next_id FROM sequence").getInt64();
    std::vector<Change> plans;
    SQLite::Statement studies(database, "SELECT id FROM study");
    while (studies.executeStep()) {
        Plan plan;
        plan.id = Id<Plan>{next++};
        plan.study = Id<Study>{studies.getColumn(0).getInt64()};
        plans.push_back({std::nullopt, Entity(plan)});
    }
    writeChanges(database, plans);
    database.exec(fmt::format("UPDATE sequence SET next_id = {}", next));
}

/// Format 4, reductions by hand: new tables and columns; how many impossible cells a log had.
void addReductionSettings(SQLite::Database& database) {
    addMissingColumns(database);
    database.exec("ALTER TABLE time_axis ADD COLUMN impossible INTEGER NOT NULL DEFAULT 0");
    database.exec(
        "CREATE TABLE channel_block (recording INTEGER NOT NULL REFERENCES recording(id) DEFERRABLE "
        "INITIALLY DEFERRED, position INTEGER NOT NULL, block INTEGER NOT NULL, samples INTEGER NOT NULL, "
        "data BLOB NOT NULL, PRIMARY KEY (recording, position, block)) STRICT");
}

/// Format 5: a question may name the load whose runs it compares.
void addQuestionLoad(SQLite::Database& database) { addMissingColumns(database); }

using Migration = void (*)(SQLite::Database&);
/// migrations[n] leads from format n to format n + 1; format 0 is an empty file that bears our id.
constexpr Migration migrations[] = {createTables, extendShelf, addPlans, addReductionSettings,
                                    addQuestionLoad};
static_assert(std::size(migrations) == Project::formatVersion);

void migrate(SQLite::Database& database, int from) {
    SQLite::Transaction transaction(database);
    for (int version = from; version < Project::formatVersion; ++version) migrations[version](database);
    database.exec(fmt::format("PRAGMA user_version = {}", Project::formatVersion));
    transaction.commit();
}

int pragma(SQLite::Database& database, const char* name) {
    return database.execAndGet(fmt::format("PRAGMA {}", name)).getInt();
}

void copyBeforeMigration(const std::filesystem::path& path, int version) {
    std::filesystem::path copy = path;
    copy += fmt::format(".before-format-{}", Project::formatVersion);
    std::error_code error;
    std::filesystem::copy_file(path, copy, std::filesystem::copy_options::overwrite_existing, error);
    if (error)
        throw InputError(
            "file-not-writable", at(path),
            fmt::format("the project is of format {} and cannot be copied before it is brought up to date",
                        version),
            "Make room beside it");
}

void writeChannels(SQLite::Database& database, const RecordingData& data) {
    SQLite::Statement axis(database, "INSERT OR IGNORE INTO time_axis (recording, samples, clock_jumps, "
                                     "gaps, duplicates, data, impossible) "
                                     "VALUES (?, ?, ?, ?, ?, ?, ?)");
    const std::string time = packNumbers(data.trace.timeS);
    axis.bind(1, data.id.value);
    axis.bind(2, static_cast<std::int64_t>(data.trace.samples()));
    axis.bind(3, data.trace.axis.clockJumps);
    axis.bind(4, data.trace.axis.gaps);
    axis.bind(5, data.trace.axis.duplicatesDropped);
    axis.bind(6, time.data(), static_cast<int>(time.size()));
    axis.bind(7, data.trace.impossible);
    axis.exec();
    SQLite::Statement statement(database, "INSERT OR IGNORE INTO channel VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)");
    int position = 0;
    for (const Channel& channel : data.trace.channels) {
        const bool numbers = !channel.values.empty();
        const std::string packed = numbers ? packNumbers(channel.values) : packWords(channel.words);
        statement.reset();
        statement.bind(1, data.id.value);
        statement.bind(2, position++);
        statement.bind(3, channel.column);
        statement.bind(4, std::string(roleName(channel.role)));
        statement.bind(5, channel.index);
        statement.bind(6, static_cast<int>(channel.fileUnit));
        statement.bind(7, numbers ? "numbers" : "words");
        statement.bind(8, static_cast<std::int64_t>(numbers ? channel.values.size() : channel.words.size()));
        statement.bind(9, packed.data(), static_cast<int>(packed.size()));
        statement.exec();
    }
}

std::string_view blobOf(const SQLite::Column& column) {
    return {static_cast<const char*>(column.getBlob()), static_cast<std::size_t>(column.getBytes())};
}

/// Recordings are withdrawn, never removed: when the bench they were made on is taken back, they stay and
/// refer to a bench that a redo brings back.
bool takesBackABench(const ChangeSet& set, Direction direction) {
    return direction == Direction::undo
           && std::any_of(set.changes.begin(), set.changes.end(), [](const Change& change) {
                  return !change.after && change.before && std::holds_alternative<Bench>(*change.before);
              });
}

/// References are not enforced while it lives. Stands outside a transaction.
class LooseReferences {
public:
    LooseReferences(SQLite::Database& database, bool loose) : database_(database), loose_(loose) {
        if (loose_) database_.exec("PRAGMA foreign_keys = OFF");
    }
    ~LooseReferences() {
        if (loose_) database_.tryExec("PRAGMA foreign_keys = ON");
    }
    LooseReferences(const LooseReferences&) = delete;
    LooseReferences& operator=(const LooseReferences&) = delete;

private:
    SQLite::Database& database_;
    bool loose_;
};

} // namespace

struct Project::State {
    std::filesystem::path path;
    FileLock lock;
    std::unique_ptr<SQLite::Database> database;
    Document document;
    std::optional<FileIdentity> identity;
    Access access = Access::readWrite;

    void prepare() const {
        database->setBusyTimeout(2000);
        database->exec("PRAGMA foreign_keys = ON");
        if (access == Access::readOnly) return;
        database->exec("PRAGMA journal_mode = WAL");
        database->exec("PRAGMA synchronous = NORMAL");
    }

    void load() {
        document = readDocument(*database);
        document.nextId = database->execAndGet("SELECT next_id FROM sequence").getInt64();
        identity = identityOf(path);
    }

    void requireSameFile() const {
        if (identityOf(path) == identity) return;
        throw InputError("project-moved", at(path),
                         "the file was moved, removed or replaced by another program",
                         "Put it back, or open the project anew");
    }
};

Project::Project(std::unique_ptr<State> state) : state_(std::move(state)) {}
Project::Project(Project&&) noexcept = default;
Project& Project::operator=(Project&&) noexcept = default;
Project::~Project() = default;

const std::filesystem::path& Project::path() const { return state_->path; }
const Document& Project::document() const { return state_->document; }

Project Project::create(const std::filesystem::path& path) {
    if (std::filesystem::exists(path))
        throw InputError("file-exists", at(path), "there is a file of that name already",
                         "Choose another name");
    auto state = std::make_unique<State>();
    state->path = path;
    state->lock = FileLock(path);
    try {
        state->database =
            std::make_unique<SQLite::Database>(path.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
        state->database->exec(fmt::format("PRAGMA application_id = {}", applicationId));
        state->prepare();
        migrate(*state->database, 0);
        state->load();
    } catch (const SQLite::Exception& error) {
        rethrow(path, error);
    }
    return Project(std::move(state));
}

Project Project::open(const std::filesystem::path& path, Access access) {
    if (!std::filesystem::exists(path))
        throw InputError("file-missing", at(path), "there is no such file", "Check the name");
    if (!std::filesystem::is_regular_file(path))
        throw InputError("project-not-one", at(path), "this is not an Ibuki project",
                         "Choose a file that ends in .ibuki");
    auto state = std::make_unique<State>();
    state->path = path;
    state->access = access;
    if (access == Access::readWrite) state->lock = FileLock(path);
    try {
        const int mode = access == Access::readWrite ? SQLite::OPEN_READWRITE : SQLite::OPEN_READONLY;
        // A finished project in a folder without write permission cannot get its WAL index: read it as it
        // stands.
        const bool sealed =
            access == Access::readOnly
            && ::access(path.parent_path().empty() ? "." : path.parent_path().c_str(), W_OK) != 0;
        const std::string name = sealed ? "file:" + path.string() + "?immutable=1" : path.string();
        state->database = std::make_unique<SQLite::Database>(name, mode | (sealed ? SQLite::OPEN_URI : 0));
        if (pragma(*state->database, "application_id") != applicationId)
            throw InputError("project-not-one", at(path), "this is a database, but not an Ibuki project",
                             "Choose a file that ends in .ibuki");
        const int version = pragma(*state->database, "user_version");
        if (version > formatVersion)
            throw InputError(
                "project-newer", at(path),
                fmt::format("the project is of format {}, this Ibuki reads up to {}", version, formatVersion),
                "Open it with a newer Ibuki; nothing was changed");
        if (version < formatVersion) {
            if (access == Access::readOnly)
                throw InputError("project-older", at(path),
                                 fmt::format("the project is of the older format {}", version),
                                 "Open it once in the window, which brings a copy up to date");
            copyBeforeMigration(path, version);
            migrate(*state->database, version);
        }
        state->prepare();
        state->load();
    } catch (const SQLite::Exception& error) {
        rethrow(path, error);
    } catch (const InputError& error) {
        if (!error.where.file.empty()) throw;
        throw InputError(error.code, at(path), error.what(), error.mend);
    }
    return Project(std::move(state));
}

void Project::apply(const ChangeSet& set, std::span<const RecordingData> recordings, Direction direction) {
    if (set.empty()) return;
    if (state_->access == Access::readOnly)
        throw InputError("file-not-writable", at(path()), "the project was opened for reading only",
                         "Open a copy");
    state_->requireSameFile();
    static constexpr const char* words[] = {"do", "undo", "redo"};
    Document next = state_->document;
    ibuki::apply(next, set);
    try {
        const LooseReferences loose(*state_->database, takesBackABench(set, direction));
        SQLite::Transaction transaction(*state_->database);
        writeChanges(*state_->database, set.changes);
        for (const RecordingData& data : recordings) writeChannels(*state_->database, data);
        SQLite::Statement line(*state_->database, "INSERT INTO history (at, action, title, changes) VALUES "
                                                  "(strftime('%Y-%m-%dT%H:%M:%SZ', 'now'), ?, ?, ?)");
        line.bind(1, words[static_cast<int>(direction)]);
        line.bind(2, set.title);
        line.bind(3, describe(set.changes).dump());
        line.exec();
        SQLite::Statement sequence(*state_->database, "UPDATE sequence SET next_id = ?");
        sequence.bind(1, next.nextId);
        sequence.exec();
        transaction.commit();
    } catch (const SQLite::Exception& error) {
        rethrow(path(), error);
    }
    state_->document = std::move(next);
}

Trace Project::loadTrace(Id<Recording> id) const {
    try {
        Trace trace;
        SQLite::Statement axis(*state_->database, "SELECT samples, clock_jumps, gaps, duplicates, data, "
                                                  "impossible FROM time_axis WHERE recording = ?");
        axis.bind(1, id.value);
        if (!axis.executeStep())
            throw InputError("project-damaged", at(path()), "the samples of a recording are missing",
                             "Import its log again");
        const auto samples = static_cast<std::size_t>(axis.getColumn(0).getInt64());
        trace.axis = {axis.getColumn(1).getInt(), axis.getColumn(2).getInt(), axis.getColumn(3).getInt()};
        trace.timeS = unpackNumbers(blobOf(axis.getColumn(4)), samples);
        trace.impossible = axis.getColumn(5).getInt64();
        SQLite::Statement query(*state_->database,
                                "SELECT log_column, role, idx, unit, kind, samples, data FROM "
                                "channel WHERE recording = ? ORDER BY position");
        query.bind(1, id.value);
        while (query.executeStep()) {
            Channel channel;
            channel.column = query.getColumn(0).getString();
            channel.role = roleFromName(query.getColumn(1).getString()).value_or(Role::ignore);
            channel.index = query.getColumn(2).getInt();
            channel.fileUnit = static_cast<Unit>(query.getColumn(3).getInt());
            const auto count = static_cast<std::size_t>(query.getColumn(5).getInt64());
            const std::string kind = query.getColumn(4).getString();
            if (kind.ends_with("blocks")) // kept beside, see channel_keeper.h; no figure is made from it
                channel.role = Role::ignore;
            else if (kind == "numbers")
                channel.values = unpackNumbers(blobOf(query.getColumn(6)), count);
            else
                channel.words = unpackWords(blobOf(query.getColumn(6)), count);
            trace.channels.push_back(std::move(channel));
        }
        if (const Recording* recording = document().find(id)) trace.start = recording->start;
        return trace;
    } catch (const SQLite::Exception& error) {
        rethrow(path(), error);
    }
}

Trace Project::loadWithProbe(Id<Recording> id, std::optional<double> statedShiftS) const {
    Trace trace = loadTrace(id);
    const Recording* recording = document().find(id);
    const Recording* room = recording ? document().find(recording->probe) : nullptr;
    if (!room || room->withdrawn) return trace;
    const Trace probe = loadTrace(room->id);
    const ProbeAlignment alignment = alignmentFor(trace, probe, statedShiftS);
    return withProbe(std::move(trace), probe, alignment);
}

std::vector<HistoryLine> Project::history() const {
    std::vector<HistoryLine> lines;
    SQLite::Statement query(*state_->database,
                            "SELECT number, at, action, title, changes FROM history ORDER BY number");
    while (query.executeStep())
        lines.push_back({query.getColumn(0).getInt64(), query.getColumn(1).getString(),
                         query.getColumn(2).getString(), query.getColumn(3).getString(),
                         query.getColumn(4).getString()});
    return lines;
}

void Project::saveCopy(const std::filesystem::path& target) const {
    state_->requireSameFile();
    if (identityOf(target) && identityOf(target) == state_->identity)
        throw InputError("copy-onto-itself", at(target), "that is the project itself", "Choose another name");
    const auto temporary = temporaryBeside(target);
    std::error_code ignored;
    std::filesystem::remove(temporary, ignored);
    try {
        SQLite::Statement copy(*state_->database, "VACUUM INTO ?");
        copy.bind(1, temporary.string());
        copy.exec();
    } catch (const SQLite::Exception& error) {
        std::filesystem::remove(temporary, ignored);
        rethrow(target, error);
    }
    putInPlace(temporary, target);
}

} // namespace ibuki
