// SPDX-License-Identifier: GPL-3.0-or-later
// An instrument that answers lines of text, over TCP or a serial line (IEEE 488.2 style: a query ends in "?",
// an answer is one line; 9.91E37 stands for no number, SCPI-99 vol. 1, 7.2.1.5). An answer that comes after
// its time is thrown away with the connection, so that no later query takes it for its own.

#include "core/base/input_error.h"
#include "core/base/nan.h"
#include "live/source.h"
#include "store/json/json_fields.h"
#include "store/json/simulate_json.h"
#include "store/log/number_cell.h"
#include "store/log/text.h"

#include <algorithm>
#include <boost/asio.hpp>
#include <cmath>
#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <variant>

namespace ibuki {
namespace {

namespace asio = boost::asio;

constexpr std::size_t longestAnswer = 4'096;
constexpr double firstWaitS = 0.2; ///< before a connection is tried again, doubled each time
constexpr double longestWaitS = 5;
constexpr double missingFrom = 9.9e37;

struct InstrumentChannel {
    SourceChannel reported;
    std::string query;
    Unit unit = Unit::none; ///< of the answer
};

struct InstrumentConfig {
    std::string connect;
    std::string identify;
    double timeoutS = 1;
    std::vector<InstrumentChannel> channels;
};

constexpr JsonFieldErrors instrumentFields{"docs/cli.md, \"record\""};

[[noreturn]] void refuseConnection(const std::string& file, const std::string& connect) {
    throw InputError("json-field.connect", {file, {}, {}},
                     {{"name", "connect"}, {"found", connect}, {"described", instrumentFields.described}});
}

/// One line of text; `otherwise` where it is not there, which must be there without it.
std::string lineOf(JsonFields& fields, const char* field,
                   const std::optional<std::string>& otherwise = std::nullopt) {
    std::string line = otherwise.value_or("");
    if (otherwise)
        fields.take(field, line);
    else
        line = fields.needText(field);
    if (line.find_first_of(std::string("\r\n\0", 3)) != std::string::npos)
        fields.refuse("json-field.line", field);
    if (!otherwise && line.empty()) fields.refuse("json-field.line", field);
    return line;
}

InstrumentChannel channelFrom(JsonFields fields) {
    InstrumentChannel channel;
    channel.reported.column = lineOf(fields, "column");
    channel.query = lineOf(fields, "query");
    std::string roleWord = "ignore";
    std::string unitWord;
    fields.take("role", roleWord);
    fields.take("unit", unitWord);
    const auto role = roleFromName(roleWord);
    if (!role || *role == Role::time) fields.refuse("json-field.role", "role");
    const auto unit = unitFromName(unitWord);
    if (!unit) fields.refuse("json-field.unit", "unit");
    channel.reported.role = *role;
    channel.unit = *unit;
    channel.reported.unit = canonicalUnit(*unit);
    fields.finish();
    return channel;
}

InstrumentConfig configFrom(const std::string& file) {
    constexpr std::size_t mostChannels = 10'000;
    const nlohmann::json json = readJsonFile(file);
    JsonFields fields(json, file, instrumentFields);
    InstrumentConfig config;
    config.connect = lineOf(fields, "connect");
    config.identify = lineOf(fields, "identify", "*IDN?");
    fields.take("timeout_s", config.timeoutS, NumberRange{0, 3'600, true});
    fields.each("channels", mostChannels, [&](const auto& one, const std::string& at) {
        config.channels.push_back(channelFrom({one, file, instrumentFields, at}));
    });
    fields.finish();
    if (config.channels.empty()) fields.refuse("json-field.missing", "channels");
    return config;
}

/// One connection, with a time-out on everything it does.
class Line {
public:
    /// connect: "tcp:HOST:PORT" or "serial:DEVICE:BAUD". Throws InputError (json-field) for anything
    /// else.
    Line(const std::string& connect, const std::string& file) {
        const std::size_t first = connect.find(':');
        const std::size_t last = connect.rfind(':');
        const std::string kind = connect.substr(0, first);
        if (first == std::string::npos || last == first || (kind != "tcp" && kind != "serial"))
            refuseConnection(file, connect);
        place_ = connect.substr(first + 1, last - first - 1);
        number_ = connect.substr(last + 1);
        isTcp_ = kind == "tcp";
        if (place_.size() > 2 && place_.front() == '[' && place_.back() == ']')
            place_ = place_.substr(1, place_.size() - 2); // an IPv6 address
        const bool digits = !number_.empty() && number_.size() < 8
                            && number_.find_first_not_of("0123456789") == std::string::npos;
        if (place_.empty() || !digits || (isTcp_ && std::stoi(number_) > 65'535))
            refuseConnection(file, connect);
    }

    bool isOpen() const { return open_; }

    bool open(double timeoutS) {
        close();
        try {
            if (isTcp_)
                openTcp(timeoutS);
            else
                openSerial();
        } catch (const boost::system::system_error&) {
            close();
        }
        return open_;
    }

    void close() {
        boost::system::error_code ignored;
        socket_.close(ignored);
        port_.close(ignored);
        buffer_.clear();
        open_ = false;
    }

    /// The answer without its end; nothing in time, or a broken or talkative line: closed then.
    std::optional<std::string> ask(const std::string& query, double timeoutS) {
        if (!open_ || !isQuiet()) {
            close();
            return std::nullopt;
        }
        const std::string sent = query + "\n";
        if (!within(timeoutS, [&](auto done) {
                isTcp_ ? asio::async_write(socket_, asio::buffer(sent), done)
                       : asio::async_write(port_, asio::buffer(sent), done);
            })) {
            close();
            return std::nullopt;
        }
        if (!query.ends_with('?') && query.find('?') == std::string::npos) return std::string();
        if (!within(timeoutS, [&](auto done) {
                auto into = asio::dynamic_buffer(buffer_, longestAnswer);
                isTcp_ ? asio::async_read_until(socket_, into, '\n', done)
                       : asio::async_read_until(port_, into, '\n', done);
            })) {
            close();
            return std::nullopt;
        }
        const std::size_t end = buffer_.find('\n');
        std::string answer(trim(std::string_view(buffer_).substr(0, end)));
        buffer_.erase(0, end + 1);
        return answer;
    }

private:
    /// Runs one operation; false when it failed or took too long.
    template <class Begin> bool within(double timeoutS, Begin&& begin) {
        std::optional<boost::system::error_code> result;
        begin([&result](const boost::system::error_code& error, auto&&...) { result = error; });
        context_.restart();
        context_.run_for(std::chrono::duration_cast<std::chrono::steady_clock::duration>(
            std::chrono::duration<double>(timeoutS)));
        if (!result) { // let it end before what it refers to is gone
            boost::system::error_code ignored;
            socket_.cancel(ignored);
            port_.cancel(ignored);
            context_.restart();
            context_.run_for(std::chrono::seconds(1));
            return false;
        }
        return !*result;
    }

    void openTcp(double timeoutS) {
        asio::ip::tcp::resolver resolver(context_);
        const auto found = resolver.resolve(place_, number_);
        open_ = within(timeoutS, [&](auto done) { asio::async_connect(socket_, found, done); });
        if (open_) socket_.set_option(asio::ip::tcp::no_delay(true));
    }

    void openSerial() {
        port_.open(place_);
        port_.set_option(asio::serial_port_base::baud_rate(static_cast<unsigned>(std::stoul(number_))));
        port_.set_option(asio::serial_port_base::character_size(8));
        port_.set_option(asio::serial_port_base::parity(asio::serial_port_base::parity::none));
        port_.set_option(asio::serial_port_base::stop_bits(asio::serial_port_base::stop_bits::one));
        port_.set_option(asio::serial_port_base::flow_control(asio::serial_port_base::flow_control::none));
        open_ = true;
    }

    /// Nothing waits that nobody asked for: it would be taken for the answer.
    bool isQuiet() {
        if (!buffer_.empty()) return false;
        boost::system::error_code error;
        return !isTcp_ || (socket_.available(error) == 0 && !error);
    }

    std::string place_;
    std::string number_;
    bool isTcp_ = true;
    bool open_ = false;
    asio::io_context context_;
    asio::ip::tcp::socket socket_{context_};
    asio::serial_port port_{context_};
    std::string buffer_;
};

class InstrumentSource : public Source {
public:
    InstrumentSource(std::string spec, const std::string& file, const SourceOptions& options)
        : spec_(std::move(spec)),
          config_(configFrom(file)),
          line_(config_.connect, file),
          everyS_(options.everyS) {
        if (!connect()) throw InputError("source-mute", {file, {}, {}}, {{"connect", config_.connect}});
    }

    const std::string& spec() const override { return spec_; }
    double intervalS() const override { return everyS_; }
    std::vector<SourceChannel> channels() const override {
        std::vector<SourceChannel> channels;
        for (const InstrumentChannel& channel : config_.channels) channels.push_back(channel.reported);
        return channels;
    }

    std::vector<double> readNow() override {
        std::vector<double> values;
        for (const InstrumentChannel& channel : config_.channels) values.push_back(readOne(channel));
        return values;
    }

    void run(const std::stop_token& stop, SourceSink& sink) override {
        const double begin = steadyNowS();
        double nextTry = 0;
        double wait = firstWaitS;
        for (std::int64_t i = 0;; ++i) {
            if (!waitUntil(stop, begin + static_cast<double>(i) * everyS_)) return;
            i = std::max(i, static_cast<std::int64_t>((steadyNowS() - begin) / everyS_));
            if (!line_.isOpen() && steadyNowS() >= nextTry) {
                wait = connect() ? firstWaitS : std::min(2 * wait, longestWaitS);
                nextTry = steadyNowS() + wait;
            }
            const double asked = steadyNowS();
            std::vector<double> values = readNow();
            sink.take({asked - begin, std::move(values)});
            if (bad_ > 0) sink.badRows(std::exchange(bad_, 0));
        }
    }

private:
    bool connect() {
        if (!line_.open(config_.timeoutS)) return false;
        return config_.identify.empty() || line_.ask(config_.identify, config_.timeoutS).has_value();
    }

    double readOne(const InstrumentChannel& channel) {
        if (!line_.isOpen()) return nan;
        const auto answer = line_.ask(channel.query, config_.timeoutS);
        if (!answer) return nan;
        const auto number = parseNumber(*answer, '.');
        const auto loose = number ? std::nullopt : looseNumber(*answer, '.');
        if (!number && !loose) {
            ++bad_;
            return nan;
        }
        const double value = number ? *number : loose->value;
        if (std::abs(value) >= missingFrom) return nan;
        return toCanonical(value, loose && loose->unit != Unit::none ? loose->unit : channel.unit);
    }

    std::string spec_;
    InstrumentConfig config_;
    Line line_;
    double everyS_;
    std::int64_t bad_ = 0;
};

} // namespace

std::unique_ptr<Source> openLineInstrument(const std::string& spec, const std::string& config,
                                           const SourceOptions& options) {
    return std::make_unique<InstrumentSource>(spec, config, options);
}

} // namespace ibuki
