// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/formats/format_steps.h"

#include "store/digest.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <algorithm>
#include <array>
#include <cctype>
#include <fmt/format.h>
#include <regex>

namespace ibuki {

// Format 6: identity is an id (loads of runs and questions), files stand by their digest outside the rows,
// units are words.
const char* const format6 = R"sql(
ALTER TABLE "lot_picture" DROP COLUMN "data";

-- Loads were known by name. Runs keep the load of that name in the first study that their mount is in; a name
-- that no load of the study has becomes one that was found in its logs.
ALTER TABLE "load" ADD COLUMN "planned" INTEGER NOT NULL DEFAULT 1;
ALTER TABLE "load" ADD COLUMN "same_as" INTEGER REFERENCES "load"(id) DEFERRABLE INITIALLY DEFERRED;
CREATE TABLE named_load AS
    SELECT run.id AS run, NULL AS question, run."load" AS name,
        coalesce((SELECT min(slot.study) FROM slot WHERE slot.mount = run.mount),
            (SELECT min(study.id) FROM study JOIN configuration ON configuration.bench = study.bench
             JOIN mount ON mount.configuration = configuration.id WHERE mount.id = run.mount)) AS study
    FROM run WHERE run."load" <> '';
INSERT INTO named_load SELECT NULL, question.id, question."load", question.study FROM question
    WHERE question."load" <> '';
INSERT INTO "load" (id, study, position, name, planned)
    SELECT (SELECT next_id FROM sequence) + row_number() OVER (ORDER BY study, name) - 1, study,
        1000 + row_number() OVER (ORDER BY study, name), name, 0
    FROM (SELECT DISTINCT study, name FROM named_load WHERE study IS NOT NULL
          EXCEPT SELECT study, name FROM "load");
UPDATE sequence SET next_id = max(next_id, (SELECT coalesce(max(id), 0) + 1 FROM "load"));
-- Loads of one name on one bench were compared together, and still are.
UPDATE "load" SET same_as = (SELECT min(other.id) FROM "load" AS other JOIN study AS there ON there.id = other.study
    JOIN study AS here ON here.id = "load".study WHERE other.name = "load".name AND there.bench = here.bench);
UPDATE "load" SET same_as = NULL WHERE same_as = id;
ALTER TABLE "run" DROP COLUMN "load";
ALTER TABLE "run" ADD COLUMN "load" INTEGER REFERENCES "load"(id) DEFERRABLE INITIALLY DEFERRED;
UPDATE "run" SET "load" = (SELECT min("load".id) FROM named_load JOIN "load" ON "load".study = named_load.study
    AND "load".name = named_load.name WHERE named_load.run = "run".id);
ALTER TABLE "question" DROP COLUMN "load";
ALTER TABLE "question" ADD COLUMN "load" INTEGER REFERENCES "load"(id) DEFERRABLE INITIALLY DEFERRED;
UPDATE "question" SET "load" = (SELECT min("load".id) FROM named_load JOIN "load"
    ON "load".study = named_load.study AND "load".name = named_load.name
    WHERE named_load.question = "question".id);
DROP TABLE named_load;

-- How paste was put on was free text: what has no word of its own goes to the remarks.
UPDATE "application" SET pattern = lower(trim(pattern));
UPDATE "application" SET pattern = 'five dots' WHERE pattern IN ('five-dots', '5 dots');
UPDATE "application" SET pattern = 'not stated' WHERE pattern = '';
UPDATE "application" SET note = trim('put on as ' || pattern || '. ' || note), pattern = 'other'
    WHERE pattern NOT IN ('not stated', 'dot', 'line', 'cross', 'five dots', 'film', 'sheet', 'other');
UPDATE "level" SET pattern = lower(trim(pattern));
UPDATE "level" SET pattern = 'five dots' WHERE pattern IN ('five-dots', '5 dots');
UPDATE "level" SET pattern = 'not stated' WHERE pattern = '';
UPDATE "level" SET pattern = 'other'
    WHERE pattern NOT IN ('not stated', 'dot', 'line', 'cross', 'five dots', 'film', 'sheet', 'other');
UPDATE "plan" SET pattern = lower(trim(pattern));
UPDATE "plan" SET pattern = 'five dots' WHERE pattern IN ('five-dots', '5 dots');
UPDATE "plan" SET pattern = 'not stated' WHERE pattern = '';
UPDATE "study" SET note = trim(note || ' Put on as ' || (SELECT pattern FROM "plan" WHERE "plan".study = "study".id)
    || '.') WHERE id IN (SELECT study FROM "plan" WHERE pattern NOT IN
    ('not stated', 'dot', 'line', 'cross', 'five dots', 'film', 'sheet', 'other'));
UPDATE "plan" SET pattern = 'other'
    WHERE pattern NOT IN ('not stated', 'dot', 'line', 'cross', 'five dots', 'film', 'sheet', 'other');

-- Units were stored by their place in a list.
CREATE TABLE channel_6 (
    recording INTEGER NOT NULL REFERENCES recording(id) DEFERRABLE INITIALLY DEFERRED,
    position INTEGER NOT NULL, log_column TEXT NOT NULL, role TEXT NOT NULL, idx INTEGER NOT NULL,
    unit TEXT NOT NULL, kind TEXT NOT NULL, samples INTEGER NOT NULL, data BLOB NOT NULL,
    PRIMARY KEY (recording, position)) STRICT;
INSERT INTO channel_6 SELECT recording, position, log_column, role, idx,
    CASE unit WHEN 1 THEN 'degC' WHEN 2 THEN 'degF' WHEN 3 THEN 'K' WHEN 4 THEN 'W' WHEN 5 THEN 'mW' WHEN 6 THEN 'MHz' WHEN 7 THEN 'GHz' 
        WHEN 8 THEN 'rpm' WHEN 9 THEN '%' WHEN 10 THEN 'dB' WHEN 11 THEN 's' WHEN 12 THEN 'ms' WHEN 13 THEN 'other' WHEN 14 THEN 'us' WHEN 15 THEN 'V'
        ELSE '' END,
    kind, samples, data FROM channel;
DROP TABLE channel;
ALTER TABLE channel_6 RENAME TO channel;
)sql";

namespace {

std::vector<std::string> wordsOf(const std::string& text, std::string_view separators) {
    std::vector<std::string> words(1);
    for (char c : text) {
        if (separators.find(c) == std::string_view::npos)
            words.back() += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
        else if (!words.back().empty())
            words.emplace_back();
    }
    if (words.back().empty()) words.pop_back();
    return words;
}

bool areDays(const std::string& text) {
    static constexpr std::array<std::string_view, 7> days{"mon", "tue", "wed", "thu", "fri", "sat", "sun"};
    const auto words = wordsOf(text, " ,;");
    return std::all_of(words.begin(), words.end(), [](const std::string& word) {
        return std::find(days.begin(), days.end(), word.substr(0, 3)) != days.end();
    });
}

bool areDelays(const std::string& text) {
    static const std::regex delay(R"(\s*[0-9]{1,4}\s*(h|d|w|mo|y)\s*)");
    const auto words = wordsOf(text, ",;");
    return std::all_of(words.begin(), words.end(),
                       [](const std::string& word) { return std::regex_match(word, delay); });
}

/// Text that names no days, or no times, moves to the study's remarks.
void tidy(SQLite::Database& database, const char* column, const char* instead, const char* remark,
          bool (*means)(const std::string&)) {
    SQLite::Statement plans(database, fmt::format("SELECT id, study, {} FROM plan", column));
    while (plans.executeStep()) {
        const std::string text = plans.getColumn(2).getString();
        if (means(text)) continue;
        SQLite::Statement plan(database, fmt::format("UPDATE plan SET {} = ? WHERE id = ?", column));
        plan.bind(1, instead);
        plan.bind(2, plans.getColumn(0).getInt64());
        plan.exec();
        SQLite::Statement study(database, "UPDATE study SET note = trim(note || ' ' || ?) WHERE id = ?");
        study.bind(1, fmt::format("{} as written: {}.", remark, text));
        study.bind(2, plans.getColumn(1).getInt64());
        study.exec();
    }
}

void moveFilesOut(SQLite::Database& database) {
    database.exec("CREATE TABLE \"file\" (sha256 TEXT PRIMARY KEY, data BLOB NOT NULL) STRICT");
    database.exec("ALTER TABLE \"lot_picture\" ADD COLUMN \"sha256\" TEXT NOT NULL DEFAULT ''");
    database.exec("ALTER TABLE \"lot_picture\" ADD COLUMN \"bytes\" INTEGER NOT NULL DEFAULT 0");
    SQLite::Statement pictures(database, "SELECT id, data FROM lot_picture");
    SQLite::Statement file(database, "INSERT OR IGNORE INTO \"file\" (sha256, data) VALUES (?, ?)");
    SQLite::Statement picture(database, "UPDATE lot_picture SET sha256 = ?, bytes = ? WHERE id = ?");
    while (pictures.executeStep()) {
        const SQLite::Column data = pictures.getColumn(1);
        const std::string bytes(static_cast<const char*>(data.getBlob()),
                                static_cast<std::size_t>(data.getBytes()));
        const std::string digest = sha256(bytes);
        file.bind(1, digest);
        file.bind(2, bytes.data(), static_cast<int>(bytes.size()));
        file.exec();
        file.reset();
        picture.bind(1, digest);
        picture.bind(2, static_cast<std::int64_t>(bytes.size()));
        picture.bind(3, pictures.getColumn(0).getInt64());
        picture.exec();
        picture.reset();
    }
}

} // namespace

void beforeFormat6(SQLite::Database& database) {
    moveFilesOut(database);
    tidy(database, "weekdays", "Mon Tue Wed Thu Fri", "Days", areDays);
    tidy(database, "follow_ups", "", "To come back after,", areDelays);
}

} // namespace ibuki
