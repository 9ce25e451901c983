// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/speaker.h"

#include "words/data_folder.h"

#include <map>
#include <QApplication>
#include <QAudioDevice>
#include <QMediaDevices>
#include <QSoundEffect>
#include <QTextToSpeech>

namespace rollcall {

namespace {

QString fileOf(Sound sound) {
    switch (sound) {
    case Sound::dwellOver:
        return QStringLiteral("dwell-over.wav");
    case Sound::ovenDue:
        return QStringLiteral("oven-due.wav");
    }
    return {};
}

} // namespace

struct Speaker::Parts {
    std::unique_ptr<QTextToSpeech> voice;
    std::map<Sound, std::unique_ptr<QSoundEffect>> tones;
};

Speaker::Speaker() : m_parts(std::make_unique<Parts>()) {}
Speaker::~Speaker() = default;

QString Speaker::say(const QString& text) {
    if (QTextToSpeech::availableEngines().isEmpty())
        return QApplication::tr("This computer has no voice: a speech engine for Qt is not installed.");
    if (!m_parts->voice) m_parts->voice = std::make_unique<QTextToSpeech>();
    QTextToSpeech& voice = *m_parts->voice;
    if (voice.state() == QTextToSpeech::Error)
        return QApplication::tr("This computer's voice does not answer (%1).").arg(voice.engine());
    voice.say(text);
    return {};
}

void Speaker::sound(Sound sound) {
    if (QMediaDevices::defaultAudioOutput().isNull()) return QApplication::beep();
    std::unique_ptr<QSoundEffect>& effect = m_parts->tones[sound];
    if (!effect) {
        effect = std::make_unique<QSoundEffect>();
        effect->setSource(QUrl::fromLocalFile(dataFolder() + QStringLiteral("/sounds/") + fileOf(sound)));
    }
    effect->play();
}

} // namespace rollcall
