// SPDX-License-Identifier: GPL-3.0-or-later
// ibuki-sim-instrument: an instrument that is not there, on a TCP port of this machine.

#include "core/base/input_error.h"
#include "live/simulated_instrument.h"
#include "live/source.h"
#include "store/json/simulate_json.h"
#include "words/words.h"

#include <boost/asio.hpp>
#include <charconv>
#include <cstdio>
#include <cstring>
#include <optional>
#include <string>

namespace {

using boost::asio::ip::tcp;
using namespace ibuki;

struct Arguments {
    unsigned short port = 0;
    std::string bench;
    std::uint64_t seed = 1;
    double lateS = 0; ///< every fifth answer comes so late
    bool help = false;
};

constexpr const char* usage = "ibuki-sim-instrument [--port N] [--bench BENCH.json] [--seed N] [--late S]\n"
                              "An instrument that is not there: *IDN?, MEAS:TEMP? 1 (room), MEAS:TEMP? 2 "
                              "(plate), MEAS:POW? (wall), MEAS:LEV?\n"
                              "Prints the port that it listens on, at 127.0.0.1; --late: every fifth answer "
                              "comes so many seconds late.\n";

template <class Number> bool read(const char* text, Number& into) {
    const auto [end, error] = std::from_chars(text, text + std::strlen(text), into);
    return error == std::errc{} && *end == '\0';
}

std::optional<Arguments> argumentsOf(int argc, char** argv) {
    Arguments arguments;
    for (int i = 1; i < argc; ++i) {
        const std::string name = argv[i];
        if (name == "--help") {
            arguments.help = true;
            return arguments;
        }
        if (i + 1 >= argc) return std::nullopt;
        const char* value = argv[++i];
        const bool sound = name == "--port"    ? read(value, arguments.port)
                           : name == "--seed"  ? read(value, arguments.seed)
                           : name == "--late"  ? read(value, arguments.lateS)
                           : name == "--bench" ? (arguments.bench = value, true)
                                               : false;
        if (!sound) return std::nullopt;
    }
    return arguments;
}

/// Until the peer goes.
void serve(tcp::socket& socket, SimulatedInstrument& instrument, const Arguments& arguments, double beganS) {
    std::string buffer;
    boost::system::error_code error;
    for (int asked = 1;; ++asked) {
        const std::size_t end = boost::asio::read_until(
            socket, boost::asio::dynamic_buffer(buffer, std::size_t{4'096}), '\n', error);
        if (error) return;
        std::string query = buffer.substr(0, end - 1);
        buffer.erase(0, end);
        if (!query.empty() && query.back() == '\r') query.pop_back();
        if (arguments.lateS > 0 && asked % 5 == 0) waitUntil({}, steadyNowS() + arguments.lateS);
        boost::asio::write(
            socket, boost::asio::buffer(instrument.answer(query, steadyNowS() - beganS) + "\n"), error);
        if (error) return;
    }
}

} // namespace

int main(int argc, char** argv) {
    words::useLanguage();
    const auto arguments = argumentsOf(argc, argv);
    if (!arguments || arguments->help) {
        std::fputs(usage, arguments ? stdout : stderr);
        return arguments ? 0 : 2;
    }
    try {
        const SimulatedBench bench = arguments->bench.empty()
                                         ? SimulatedBench{}
                                         : benchFromJson(readJsonFile(arguments->bench), arguments->bench);
        SimulatedInstrument instrument(bench, arguments->seed);
        boost::asio::io_context context;
        tcp::acceptor acceptor(context, {boost::asio::ip::address_v4::loopback(), arguments->port});
        std::printf("%d\n", static_cast<int>(acceptor.local_endpoint().port()));
        std::fflush(stdout);
        const double began = steadyNowS();
        for (;;) {
            tcp::socket socket(context);
            acceptor.accept(socket);
            serve(socket, instrument, *arguments, began);
        }
    } catch (const InputError& error) {
        std::fprintf(stderr, "%s\n", words::sentence(error).c_str());
    } catch (const std::exception& error) {
        std::fprintf(stderr, "ibuki-sim-instrument: %s\n", error.what());
    }
    return 1;
}
