// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/log_layout.h"

#include "store/log/fingerprint.h"

#include "store/log/number_cell.h"
#include "store/log/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace ibuki {
namespace {

constexpr std::size_t previewRows = 40;
constexpr std::size_t sampleRows = 300;
constexpr std::size_t tailBytes = 65'536;

class LayingOut {
public:
    LayingOut(std::string_view text, const LogOptions& options, const LogNotes& notes)
        : text_(text), options_(options), notes_(notes) {}

    LogLayout run() {
        findDialect();
        takeSample();
        planColumns();
        planTime();
        return std::move(layout_);
    }

private:
    void findDialect() {
        if (text_.find_first_not_of(" \r\n\t") == std::string_view::npos) notes_.refuse("log-empty");
        auto found = detectDialect(text_, options_.dialect);
        if (!found) notes_.refuse("log-not-a-log.header", {}, 1);
        layout_.dialect = std::move(*found);
        if (layout_.dialect.columns.size() >= mostFields) notes_.refuse("log-columns");
    }

    /// Rows of the beginning and of the end, for what has to be told from the data.
    void takeSample() {
        const Dialect& dialect = layout_.dialect;
        auto& rows = layout_.rows;
        std::string_view rest = text_.substr(dialect.bodyOffset);
        long line = dialect.bodyLine - 1;
        while (!rest.empty() && rows.size() < sampleRows) {
            ++line;
            auto fields = splitFields(takeLine(rest), dialect.separator);
            if (fields.size() < 2 && dialect.columns.size() > 1) continue;
            if (layout_.preview.size() < previewRows) {
                layout_.previewLines.push_back(line);
                layout_.preview.push_back(fields);
            }
            rows.push_back(std::move(fields));
        }
        if (rest.size() > tailBytes) {
            rest = rest.substr(rest.size() - tailBytes);
            takeLine(rest); // most likely cut
        }
        while (!rest.empty() && rows.size() < 2 * sampleRows)
            rows.push_back(splitFields(takeLine(rest), dialect.separator));
        if (rows.empty()) notes_.refuse("log-no-samples", {}, dialect.headerLine);
    }

    /// A unit that stands under the header or behind the numbers of a column.
    Unit externalUnit(std::size_t column) const {
        const Dialect& dialect = layout_.dialect;
        if (column < dialect.units.size())
            if (const auto unit = unitFromText(dialect.units[column])) return *unit;
        for (const auto& row : layout_.rows) {
            if (column >= row.size() || trim(row[column]).empty()) continue;
            if (parseNumber(row[column], dialect.decimal)) return Unit::none;
            if (const auto number = looseNumber(row[column], dialect.decimal)) return number->unit;
        }
        return Unit::none;
    }

    std::optional<Role> statedRole(const std::string& column, const Header& header) const {
        const auto named = layout_.stated.find(column);
        if (named != layout_.stated.end()) return named->second;
        for (const auto& [name, role] : layout_.stated)
            if (parseHeader(name).words == header.words) return role;
        return std::nullopt;
    }

    void planColumns() {
        const std::vector<std::string>& columns = layout_.dialect.columns;
        std::vector<RoleGuess>& roles = layout_.roles;
        layout_.fingerprint = headerFingerprint(columns);
        const auto remembered = options_.rolesByHeader.find(layout_.fingerprint);
        const bool isRemembered = options_.roles.empty() && remembered != options_.rolesByHeader.end();
        layout_.stated = isRemembered ? remembered->second : options_.roles;
        std::vector<Header> headers;
        std::vector<std::pair<std::size_t, Role>> stated;
        for (std::size_t i = 0; i < columns.size(); ++i) {
            Header header = parseHeader(columns[i]);
            if (header.unit == Unit::none) header.unit = externalUnit(i);
            const auto role = statedRole(columns[i], header);
            if (role) stated.emplace_back(i, *role);
            roles.push_back(role ? RoleGuess{*role, 2.0} : guessRole(header)); // stated beats guessed
            headers.push_back(std::move(header));
        }
        settleRoles(roles);
        if (options_.ambientOnly) takeAsAmbient(headers);
        for (const auto& [i, role] : stated) roles[i] = {role, 1.0}; // several may be the same
        std::map<Role, int> seen;
        for (std::size_t i = 0; i < headers.size(); ++i) {
            Channel channel;
            channel.column = columns[i];
            channel.fileUnit = headers[i].unit;
            channel.role = roles[i].role;
            channel.index = seen[channel.role]++;
            layout_.channels.push_back(std::move(channel));
        }
    }

    /// Of a probe's log: every temperature, else every column that nothing else is known of.
    void takeAsAmbient(const std::vector<Header>& headers) {
        const auto degrees = [](const Header& h) {
            return h.unit == Unit::celsius || h.unit == Unit::fahrenheit || h.unit == Unit::kelvin;
        };
        const bool any = std::any_of(headers.begin(), headers.end(), degrees);
        for (std::size_t i = 0; i < headers.size(); ++i) {
            RoleGuess& role = layout_.roles[i];
            if (role.role == Role::time || role.role == Role::ambient) continue;
            if (any ? degrees(headers[i]) : role.role == Role::ignore && headers[i].unit == Unit::none)
                role = {Role::ambient, 0.5};
        }
    }

    void planTime() {
        std::vector<Channel>& channels = layout_.channels;
        const auto& rows = layout_.rows;
        std::vector<TimeColumn> candidates;
        for (std::size_t i = 0; i < channels.size(); ++i)
            if (channels[i].role == Role::time) candidates.push_back({i, channels[i].fileUnit});
        if (candidates.empty()) candidates.push_back({0, channels[0].fileUnit});
        const auto reading = detectTime(candidates, rows, layout_.dialect.decimal, options_.time);
        const std::size_t first = candidates.front().index;
        if (!reading || reading->column >= channels.size() || reading->clockColumn >= channels.size()) {
            const std::string cell =
                first < rows.front().size() ? std::string(trim(rows.front()[first])) : std::string();
            notes_.refuse("log-no-time", {{"cell", cell.substr(0, 40)}, {"column", channels[first].column}},
                          layout_.dialect.bodyLine, static_cast<long>(first + 1));
        }
        layout_.time = *reading;
        channels[reading->column].role = Role::time;
        layout_.roles[reading->column].role = Role::time;
    }

    std::string_view text_;
    const LogOptions& options_;
    const LogNotes& notes_;
    LogLayout layout_;
};

} // namespace

LogLayout layOut(std::string_view text, const LogOptions& options, const LogNotes& notes) {
    return LayingOut(text, options, notes).run();
}

} // namespace ibuki
