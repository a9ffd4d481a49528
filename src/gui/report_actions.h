#pragma once

class QPagedPaintDevice;
class QWidget;

namespace bold::gui {

class Session;

/// The report of the last analysis onto the clipboard, as text.
void copyReport(const Session& session);
/// Asks for a printer (or a PDF file) and prints it.
void printReport(const Session& session, QWidget* window);
/// Onto pages, with the plan to tick off.
void paintReport(const Session& session, QPagedPaintDevice& pages);

}  // namespace bold::gui
