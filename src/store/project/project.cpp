// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/project.h"

#include "core/base/input_error.h"
#include "core/domain/plan.h"
#include "core/reduce/probe.h"
#include "core/trace/time_axis.h"
#include "store/atomic_file.h"
#include "store/digest.h"
#include "store/file_identity.h"
#include "store/file_lock.h"
#include "store/json/message_json.h"
#include "store/project/database.h"
#include "store/project/migrations.h"
#include "store/project/packing.h"
#include "store/project/recording_journal.h"
#include "store/project/rows.h"
#include "store/project/sqlite_errors.h"
#include "store/project/stored_cells.h"
#include "store/project_file.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <algorithm>
#include <cerrno>
#include <cmath>
#include <cstring>
#include <fcntl.h>
#include <fmt/format.h>
#include <sqlite3.h>
#include <unistd.h>

namespace ibuki {
namespace {

InputError::Where at(const std::filesystem::path& path) { return {path.string(), {}, {}}; }

int pragma(SQLite::Database& database, const char* name) {
    return database.execAndGet(fmt::format("PRAGMA {}", name)).getInt();
}

/// The project as it was, with what its log holds, under a name that is still free; no link is followed.
void copyBeforeMigration(SQLite::Database& database, const std::filesystem::path& path, int version) {
    for (int count = 1; count <= 100; ++count) {
        std::filesystem::path copy = path;
        copy += fmt::format(".before-format-{}{}", newestFormat, count > 1 ? fmt::format("-{}", count) : "");
        const int fd = ::open(copy.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, 0600);
        if (fd < 0 && errno == EEXIST) continue;
        if (fd < 0) break;
        ::close(fd);
        try {
            SQLite::Statement statement(database, "VACUUM INTO ?"); // it takes an empty file as none
            statement.bind(1, copy.string());
            statement.exec();
            return;
        } catch (const SQLite::Exception&) {
            ::unlink(copy.c_str());
            break;
        }
    }
    throw InputError("file-not-writable.old-copy", at(path), {{"version", version}});
}

/// As a part of a "file:" name.
std::string uriPath(const std::filesystem::path& path) {
    std::string text;
    for (const char c : path.string())
        text += c == '%' || c == '?' || c == '#' ? fmt::format("%{:02X}", static_cast<unsigned char>(c))
                                                 : std::string(1, c);
    return text;
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
        statement.bind(6, std::string(unitName(channel.fileUnit)));
        statement.bind(7, numbers ? "numbers" : "words");
        statement.bind(8, static_cast<std::int64_t>(numbers ? channel.values.size() : channel.words.size()));
        statement.bind(9, packed.data(), static_cast<int>(packed.size()));
        statement.exec();
    }
}

void writeFile(SQLite::Database& database, const StoredFile& file) {
    SQLite::Statement statement(database, "INSERT OR IGNORE INTO \"file\" (sha256, data) VALUES (?, ?)");
    statement.bind(1, file.sha256);
    statement.bind(2, file.bytes.data(), static_cast<int>(file.bytes.size()));
    statement.exec();
}

/// Recordings are withdrawn, never removed: when the bench they were made on is taken back, they stay and
/// refer to a bench that a redo brings back.
bool takesBackABench(const ChangeSet& set, Direction direction) {
    return direction == Direction::undo
           && std::any_of(set.changes.begin(), set.changes.end(), [](const Change& change) {
                  return !change.after && change.before && change.before->as<Bench>();
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
    bool writtenElsewhere = false; ///< when it was opened

    void openNewest(); ///< the database, brought to the newest format
    void prepare() const {
        database->setBusyTimeout(2000);
        database->exec("PRAGMA foreign_keys = ON");
        if (access == Access::readOnly) return;
        database->exec("PRAGMA journal_mode = WAL");
        database->exec("PRAGMA synchronous = NORMAL");
    }

    void load() {
        document = readDocument(*database);
        // Above every id, whatever the file says: the next value would take another's place.
        const std::int64_t stated = database->execAndGet("SELECT next_id FROM sequence").getInt64();
        if (stated <= mostId) document.nextId = std::max(document.nextId, stated);
        identity = identityOf(path);
    }

    void requireSameFile() const {
        if (identityOf(path) == identity) return;
        throw InputError("project-moved", at(path));
    }
};

StoredFile storedFile(std::string bytes) {
    std::string digest = sha256(bytes);
    return {std::move(digest), std::move(bytes)};
}

Project::Project(std::unique_ptr<State> state) : state_(std::move(state)) {}
Project::Project(Project&&) noexcept = default;
Project& Project::operator=(Project&&) noexcept = default;
Project::~Project() = default;

const std::filesystem::path& Project::path() const { return state_->path; }
const Document& Project::document() const { return state_->document; }

Project Project::create(const std::filesystem::path& path) {
    refusePlantedBeside(path);
    const int fd = ::open(path.c_str(), O_RDWR | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, 0644);
    if (fd < 0 && errno == EEXIST) throw InputError("file-exists", at(path));
    if (fd < 0) throw InputError("file-not-writable.place", at(path), {{"reason", std::strerror(errno)}});
    ::close(fd);
    auto state = std::make_unique<State>();
    state->path = path;
    state->lock = FileLock(path);
    try {
        state->database = openDatabase(path.string(), SQLite::OPEN_READWRITE);
        state->database->exec(fmt::format("PRAGMA application_id = {}", projectApplicationId));
        state->prepare();
        migrate(*state->database, 0);
        state->load();
    } catch (const SQLite::Exception& error) {
        std::error_code ignored;
        std::filesystem::remove(path, ignored);
        rethrowSqlite(path, error);
    }
    return Project(std::move(state));
}

void Project::State::openNewest() {
    const bool writes = access == Access::readWrite;
    // A finished project in a folder without write permission cannot get its WAL index: read it as it stands.
    const auto folder = path.parent_path().empty() ? std::filesystem::path(".") : path.parent_path();
    std::error_code ignored;
    const auto log = std::filesystem::file_size(path.string() + "-wal", ignored);
    const bool finished = ignored || log == 0; // else its log holds what the file does not
    const bool sealed = !writes && finished && ::access(folder.c_str(), W_OK) != 0;
    const std::string name = sealed ? "file:" + uriPath(path) + "?immutable=1" : path.string();
    database = openDatabase(name, (writes ? SQLite::OPEN_READWRITE : SQLite::OPEN_READONLY)
                                      | (sealed ? SQLite::OPEN_URI : 0));
    if (pragma(*database, "application_id") != projectApplicationId)
        throw InputError("project-not-one.database", at(path));
    const int version = pragma(*database, "user_version");
    if (version < 0) throw InputError("project-damaged.format", at(path), {{"version", version}});
    if (version > newestFormat)
        throw InputError("project-newer", at(path), {{"version", version}, {"newestFormat", newestFormat}});
    if (version == newestFormat) return;
    if (!writes) throw InputError("project-older", at(path), {{"version", version}});
    copyBeforeMigration(*database, path, version);
    migrate(*database, version);
}

Project Project::open(const std::filesystem::path& path, Access access, Decode decode) {
    requireRegularFile(path);
    refusePlantedBeside(path);
    auto state = std::make_unique<State>();
    state->path = path;
    state->access = access;
    if (access == Access::readWrite)
        state->lock = FileLock(path);
    else
        state->writtenElsewhere = FileLock::isHeld(path);
    try {
        state->openNewest();
        state->prepare();
        state->load();
        if (decode == Decode::now) decodeAll(state->document);
        Project project(std::move(state));
        if (access == Access::readWrite) project.closeInterrupted();
        return project;
    } catch (const SQLite::Exception& error) {
        rethrowSqlite(path, error);
    } catch (const InputError& error) {
        if (!error.where.file.empty()) throw;
        throw InputError(at(path), error.message);
    }
}

void Project::apply(const ChangeSet& set, const Acquired& acquired, Direction direction) {
    if (set.empty()) return;
    if (state_->access == Access::readOnly) throw InputError("file-not-writable.read-only", at(path()));
    state_->requireSameFile();
    static constexpr const char* words[] = {"do", "undo", "redo"};
    Document next = state_->document;
    ibuki::apply(next, set);
    try {
        const LooseReferences loose(*state_->database, takesBackABench(set, direction));
        SQLite::Transaction transaction(*state_->database);
        writeChanges(*state_->database, set.changes);
        for (const RecordingData& data : acquired.recordings) writeChannels(*state_->database, data);
        for (const StoredFile& file : acquired.files) writeFile(*state_->database, file);
        SQLite::Statement line(*state_->database, "INSERT INTO history (at, action, title, changes) VALUES "
                                                  "(strftime('%Y-%m-%dT%H:%M:%SZ', 'now'), ?, ?, ?)");
        line.bind(1, words[static_cast<int>(direction)]);
        line.bind(2, messageText(set.title));
        line.bind(3, describe(set.changes).dump());
        line.exec();
        SQLite::Statement sequence(*state_->database, "UPDATE sequence SET next_id = ?");
        sequence.bind(1, next.nextId);
        sequence.exec();
        transaction.commit();
    } catch (const SQLite::Exception& error) {
        rethrowSqlite(path(), error);
    }
    state_->document = std::move(next);
}

Trace Project::loadTrace(Id<Recording> id) const {
    try {
        Trace trace;
        const Recording* stated = document().find(id);
        if (stated && stated->state == RecordingState::figures) return trace; // there is no log
        if (isLive(*state_->database, id)) {
            trace = loadLiveTrace(*state_->database, id);
            if (const Recording* recording = document().find(id)) trace.start = recording->start;
            return trace;
        }
        SQLite::Statement axis(*state_->database, "SELECT samples, clock_jumps, gaps, duplicates, data, "
                                                  "impossible FROM time_axis WHERE recording = ?");
        axis.bind(1, id.value);
        if (!axis.executeStep()) throw InputError("project-damaged.samples", at(path()));
        const std::size_t samples = countIn(axis.getColumn(0), mostSamples);
        trace.axis = {axis.getColumn(1).getInt(), axis.getColumn(2).getInt(), axis.getColumn(3).getInt()};
        trace.timeS = unpackNumbers(blobOf(axis.getColumn(4)), samples);
        requireTimeAxis(trace.timeS);
        trace.impossible = axis.getColumn(5).getInt64();
        SQLite::Statement query(*state_->database,
                                "SELECT log_column, role, idx, unit, kind, samples, data FROM "
                                "channel WHERE recording = ? ORDER BY position");
        query.bind(1, id.value);
        while (query.executeStep()) {
            Channel channel;
            channel.column = query.getColumn(0).getString();
            channel.role = knownWord(roleFromName(query.getColumn(1).getString()), query.getColumn(1));
            channel.index = query.getColumn(2).getInt();
            channel.fileUnit = knownWord(unitFromName(query.getColumn(3).getString()), query.getColumn(3));
            const std::size_t count = countIn(query.getColumn(5), mostSamples);
            const std::string kind = query.getColumn(4).getString();
            if (kind.ends_with("blocks")) // kept beside, see channel_keeper.h; no figure is made from it
                channel.role = Role::ignore;
            else if (count != 0 && count != samples)
                throw InputError("project-damaged.lengths", {}, {{"column", channel.column}});
            else if (kind == "numbers")
                channel.values = unpackNumbers(blobOf(query.getColumn(6)), count);
            else
                channel.words = unpackWords(blobOf(query.getColumn(6)), count);
            trace.channels.push_back(std::move(channel));
        }
        if (const Recording* recording = document().find(id)) trace.start = recording->start;
        return trace;
    } catch (const SQLite::Exception& error) {
        rethrowSqlite(path(), error);
    } catch (const InputError& error) {
        if (!error.where.file.empty()) throw;
        throw InputError(at(path()), error.message);
    }
}

LiveExtent Project::liveExtentOf(Id<Recording> id) const {
    try {
        return liveExtent(*state_->database, id);
    } catch (const SQLite::Exception& error) {
        rethrowSqlite(path(), error);
    }
}

/// Whoever wrote them ended without a word: nobody else has the lock.
void Project::closeInterrupted() {
    Edit edit(document(), Message{"edit-recover", {}});
    for (const auto& [id, stored] : document().all<Recording>()) {
        if (stored.state != RecordingState::open) continue;
        Recording recording = stored;
        const LiveExtent extent = liveExtentOf(id);
        recording.samples = extent.samples;
        recording.durationS = extent.durationS;
        recording.state = RecordingState::interrupted;
        edit.put(recording);
    }
    apply(edit.finish());
}

bool Project::isWrittenElsewhere() const { return state_->writtenElsewhere; }

Trace Project::loadWithProbe(Id<Recording> id, std::optional<double> statedShiftS) const {
    Trace trace = loadTrace(id);
    const Recording* recording = document().find(id);
    const Recording* room = recording ? document().find(recording->probe) : nullptr;
    if (!room || room->withdrawn) return trace;
    const Trace probe = loadTrace(room->id);
    const ProbeAlignment alignment = alignmentFor(trace, probe, statedShiftS);
    return withProbe(std::move(trace), probe, alignment);
}

std::string Project::loadFile(const std::string& digest) const {
    try {
        SQLite::Statement query(*state_->database, "SELECT data FROM \"file\" WHERE sha256 = ?");
        query.bind(1, digest);
        if (!query.executeStep()) throw InputError("project-damaged.file", at(path()));
        return std::string(blobOf(query.getColumn(0)));
    } catch (const SQLite::Exception& error) {
        rethrowSqlite(path(), error);
    }
}

std::vector<HistoryLine> Project::history() const {
    try {
        std::vector<HistoryLine> lines;
        SQLite::Statement query(*state_->database,
                                "SELECT number, at, action, title, changes FROM history ORDER BY number");
        while (query.executeStep())
            lines.push_back({query.getColumn(0).getInt64(), query.getColumn(1).getString(),
                             query.getColumn(2).getString(), messageFromText(query.getColumn(3).getString()),
                             query.getColumn(4).getString()});
        return lines;
    } catch (const SQLite::Exception& error) {
        rethrowSqlite(path(), error);
    }
}

void Project::saveCopy(const std::filesystem::path& target) const {
    state_->requireSameFile();
    if (identityOf(target) && identityOf(target) == state_->identity)
        throw InputError("copy-onto-itself", at(target));
    if (isOpenHere(target)) throw InputError("project-locked", at(target));
    if (isProjectFile(target)) FileLock{target}; // another program may have it open
    const auto temporary = makePartBeside(target);
    try {
        SQLite::Statement copy(*state_->database, "VACUUM INTO ?");
        copy.bind(1, temporary.string());
        copy.exec();
    } catch (const SQLite::Exception& error) {
        std::error_code ignored;
        std::filesystem::remove(temporary, ignored);
        rethrowSqlite(target, error);
    }
    putInPlace(temporary, target);
}

} // namespace ibuki
