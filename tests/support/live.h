// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// For tests of what reads while it runs: who takes readings, an instrument that answers on a local port, a
// tree of sensors.

#include "live/source.h"

#include <atomic>
#include <boost/asio.hpp>
#include <filesystem>
#include <fstream>
#include <functional>
#include <mutex>
#include <thread>

namespace ibuki::story {

/// Keeps what a source gives.
class Taken : public SourceSink {
public:
    void take(TimedRow reading) override {
        const std::lock_guard lock(mutex_);
        readings_.push_back(std::move(reading));
    }
    void add(std::vector<SourceChannel> channels) override {
        const std::lock_guard lock(mutex_);
        for (SourceChannel& channel : channels) added_.push_back(std::move(channel));
    }
    void badRows(std::int64_t count) override { bad_ += count; }

    std::vector<TimedRow> readings() const {
        const std::lock_guard lock(mutex_);
        return readings_;
    }
    std::vector<SourceChannel> added() const {
        const std::lock_guard lock(mutex_);
        return added_;
    }
    std::int64_t bad() const { return bad_; }

private:
    mutable std::mutex mutex_;
    std::vector<TimedRow> readings_;
    std::vector<SourceChannel> added_;
    std::atomic<std::int64_t> bad_ = 0;
};

/// A source at work until it goes out of scope.
class Running {
public:
    explicit Running(Source& source)
        : thread_([this, &source](const std::stop_token& stop) { source.run(stop, taken); }) {}
    Taken taken;

    /// Waited for, at most some seconds.
    bool comes(const std::function<bool(const Taken&)>& wanted, double seconds = 8) const {
        const double until = steadyNowS() + seconds;
        while (!wanted(taken))
            if (!waitUntil({}, std::min(until, steadyNowS() + 0.01)) || steadyNowS() >= until) return false;
        return true;
    }

private:
    std::jthread thread_;
};

/// Answers each line by `answer`; an empty answer is none. One connection after the other.
class Instrument {
public:
    using Answer = std::function<std::string(const std::string&)>;

    explicit Instrument(Answer answer, unsigned short port = 0)
        : acceptor_(context_, {boost::asio::ip::address_v4::loopback(), port}),
          answer_(std::move(answer)),
          thread_([this](const std::stop_token& stop) { serve(stop); }) {}
    ~Instrument() {
        thread_.request_stop();
        boost::system::error_code ignored;
        boost::asio::ip::tcp::socket knock(context_); // wakes the one who waits for a connection
        knock.connect(acceptor_.local_endpoint(ignored), ignored);
        const std::lock_guard lock(mutex_);
        if (socket_) socket_->shutdown(boost::asio::ip::tcp::socket::shutdown_both, ignored);
    }
    unsigned short port() const { return acceptor_.local_endpoint().port(); }

private:
    void serve(const std::stop_token& stop) {
        while (!stop.stop_requested()) {
            boost::system::error_code error;
            boost::asio::ip::tcp::socket socket(context_);
            acceptor_.accept(socket, error);
            {
                const std::lock_guard lock(mutex_);
                socket_ = &socket;
            }
            std::string buffer;
            while (!error && !stop.stop_requested()) {
                const std::size_t end =
                    boost::asio::read_until(socket, boost::asio::dynamic_buffer(buffer), '\n', error);
                if (error) break;
                const std::string answer = answer_(buffer.substr(0, end - 1));
                buffer.erase(0, end);
                if (!answer.empty()) boost::asio::write(socket, boost::asio::buffer(answer), error);
            }
            const std::lock_guard lock(mutex_);
            socket_ = nullptr;
        }
    }

    boost::asio::io_context context_;
    boost::asio::ip::tcp::acceptor acceptor_;
    Answer answer_;
    std::mutex mutex_;
    boost::asio::ip::tcp::socket* socket_ = nullptr;
    std::jthread thread_;
};

inline void put(const std::filesystem::path& file, const std::string& text) {
    std::filesystem::create_directories(file.parent_path());
    std::ofstream(file, std::ios::binary) << text;
}

} // namespace ibuki::story
