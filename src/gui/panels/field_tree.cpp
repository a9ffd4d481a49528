#include "gui/panels/field_tree.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QInputDialog>
#include <QLineEdit>
#include <QPushButton>
#include <QStyledItemDelegate>
#include <QTreeWidget>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>
#include <functional>
#include <set>

#include "core/base/number.h"
#include "gui/panels/spoken.h"
#include "gui/qs.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

using parts::Path;

constexpr int kPathRole = Qt::UserRole;
constexpr int kFirstColumn = 210;
constexpr double kWholeUpTo = 1e15;

Path pathOf(const QTreeWidgetItem* item) {
  Path out;
  if (item)
    for (const auto& key : item->data(0, kPathRole).toStringList()) out.push_back(key.toStdString());
  return out;
}

Json* at(Json& part, const Path& path) {
  Json* value = &part;
  for (const auto& key : path) {
    if (const auto k = value->is_array() ? positionIn(key, value->size()) : std::nullopt)
      value = &(*value)[*k];
    else if (value->is_object() && value->contains(key))
      value = &(*value)[key];
    else
      return nullptr;
  }
  return value;
}

Path below(Path path, const std::string& key) {
  path.push_back(key);
  return path;
}

QString shown(const Json& value) {
  if (value.is_string()) return qs(value.get<std::string>());
  if (value.is_boolean()) return value.get<bool>() ? "yes" : "no";
  return value.is_number() ? qs(value.dump()) : QString();
}

bool isOf(const Json* schema, std::initializer_list<const char*> types) {
  return schema && schema->contains("type") && std::ranges::any_of(types, [&](const char* t) { return (*schema)["type"] == t; });
}

// Takes what was typed over in the type that belongs there; what is no number stays as it was typed, and is told.
Json typed(const Json* schema, const QString& text) {
  if (isOf(schema, {"boolean"})) return text == "yes";
  const auto v = realOf(text.trimmed().toStdString());
  if (!isOf(schema, {"number", "integer"}) || !v) return text.toStdString();
  return std::abs(*v) < kWholeUpTo && *v == std::floor(*v) ? Json(static_cast<long long>(*v)) : Json(*v);
}

// One of a few words is chosen, everything else typed.
class Editors : public QStyledItemDelegate {
 public:
  Editors(const Json& part, QObject* parent) : QStyledItemDelegate(parent), m_part(part) {}

  QWidget* createEditor(QWidget* parent, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    Path path;
    for (const auto& key : index.siblingAtColumn(0).data(kPathRole).toStringList()) path.push_back(key.toStdString());
    const auto* schema = parts::schemaAt(m_part, path);
    QStringList words;
    if (isOf(schema, {"boolean"})) words = {"yes", "no"};
    if (schema && schema->contains("enum"))
      for (const auto& w : (*schema)["enum"])
        if (w.is_string()) words << qs(w.get<std::string>());
    if (words.isEmpty()) return QStyledItemDelegate::createEditor(parent, option, index);
    auto* box = new QComboBox(parent);
    box->addItems(words);
    return box;
  }
  void setEditorData(QWidget* editor, const QModelIndex& index) const override {
    if (auto* box = qobject_cast<QComboBox*>(editor))
      box->setCurrentText(index.data().toString());
    else
      QStyledItemDelegate::setEditorData(editor, index);
  }
  void setModelData(QWidget* editor, QAbstractItemModel* model, const QModelIndex& index) const override {
    if (const auto* box = qobject_cast<QComboBox*>(editor))
      model->setData(index, box->currentText());
    else
      QStyledItemDelegate::setModelData(editor, model, index);
  }

 private:
  const Json& m_part;
};

class NamesStay : public QStyledItemDelegate {
 public:
  using QStyledItemDelegate::QStyledItemDelegate;
  QWidget* createEditor(QWidget*, const QStyleOptionViewItem&, const QModelIndex&) const override { return nullptr; }
};

void eachItem(QTreeWidgetItem* item, const std::function<void(QTreeWidgetItem*)>& f) {
  for (int k = 0; k < item->childCount(); ++k) {
    f(item->child(k));
    eachItem(item->child(k), f);
  }
}

}  // namespace

FieldTree::FieldTree(QWidget* parent) : QWidget(parent) {
  auto* column = new QVBoxLayout(this);
  m_tree = new QTreeWidget(this);
  m_tree->setObjectName("fields");
  m_tree->setAccessibleName(tr("Every field of the part"));
  m_tree->setHeaderLabels({tr("Field"), tr("Value")});
  m_tree->setColumnWidth(0, kFirstColumn);
  m_tree->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed | QAbstractItemView::AnyKeyPressed);
  m_tree->setItemDelegateForColumn(1, new Editors(m_part, m_tree));
  m_tree->setItemDelegateForColumn(0, new NamesStay(m_tree));
  column->addWidget(m_tree, 1);
  auto* row = new QHBoxLayout;
  m_what = new QComboBox(this);
  m_what->setObjectName("fieldWhat");
  speak(m_what, tr("What to add here"));
  row->addWidget(m_what, 1);
  const auto button = [&](const QString& text, const char* name, auto slot) {
    auto* b = new QPushButton(text, this);
    b->setObjectName(name);
    b->setAutoDefault(false);
    connect(b, &QPushButton::clicked, this, slot);
    row->addWidget(b);
    return b;
  };
  m_add = button(tr("Add"), "fieldAdd", &FieldTree::add);
  m_remove = button(tr("Remove"), "fieldRemove", &FieldTree::remove);
  m_up = button(tr("Up"), "fieldUp", [this] { move(-1); });
  m_down = button(tr("Down"), "fieldDown", [this] { move(1); });
  column->addLayout(row);
  connect(m_tree, &QTreeWidget::itemChanged, this, &FieldTree::valueTyped);
  connect(m_tree, &QTreeWidget::currentItemChanged, this, &FieldTree::offer);
}

void FieldTree::setPart(const Json& part) {
  if (m_part == part) return;
  m_part = part;
  fill(currentPath());
}

void FieldTree::go(const Path& path) {
  fill(path);
  if (auto* item = m_tree->currentItem()) {
    item->setExpanded(true);
    m_tree->scrollToItem(item, QAbstractItemView::PositionAtCenter);
  }
}

// Rows that were open stay open.
void FieldTree::fill(const Path& current) {
  std::set<std::string> open;
  eachItem(m_tree->invisibleRootItem(), [&](QTreeWidgetItem* i) {
    if (i->isExpanded()) open.insert(parts::pointer(pathOf(i)));
  });
  m_filling = true;
  m_tree->clear();
  if (m_part.is_object())
    for (const auto& [key, value] : m_part.items()) put(m_tree->invisibleRootItem(), qs(key), value, {key});
  const auto wanted = parts::pointer(current);
  eachItem(m_tree->invisibleRootItem(), [&](QTreeWidgetItem* i) {
    const auto place = parts::pointer(pathOf(i));
    i->setExpanded(open.contains(place) || wanted.starts_with(place + "/"));
    if (place == wanted) m_tree->setCurrentItem(i);
  });
  m_filling = false;
  offer();
}

void FieldTree::put(QTreeWidgetItem* under, const QString& label, const Json& value, const Path& path) {
  auto* item = new QTreeWidgetItem(under, {label, shown(value)});
  QStringList keys;
  for (const auto& key : path) keys << qs(key);
  item->setData(0, kPathRole, keys);
  item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | (value.is_structured() ? Qt::NoItemFlags : Qt::ItemIsEditable));
  if (value.is_object())
    for (const auto& [key, v] : value.items()) put(item, qs(key), v, below(path, key));
  if (value.is_array())
    for (std::size_t k = 0; k < value.size(); ++k) {
      const auto name = parts::nameOfItem(value[k]);
      put(item, QString::number(k + 1) + (name.empty() ? QString() : ": " + qs(name)), value[k], below(path, std::to_string(k)));
    }
}

Path FieldTree::currentPath() const {
  return pathOf(m_tree->currentItem());
}

void FieldTree::changed(const Path& current) {
  fill(current);
  Q_EMIT edited();
}

void FieldTree::valueTyped(QTreeWidgetItem* item, int column) {
  if (m_filling) return;
  const auto path = pathOf(item);
  auto* value = at(m_part, path);
  if (column == 1 && value && !value->is_structured()) *value = typed(parts::schemaAt(m_part, path), item->text(1).trimmed());
  // The tree is built anew, which must not happen while it is still closing the editor.
  QMetaObject::invokeMethod(
      this, [this, path] { changed(path); }, Qt::QueuedConnection);
}

// What can be added depends on where one stands: fields of an object, items of a list; beside a plain value what its neighbours are.
void FieldTree::offer() {
  if (m_filling) return;
  auto path = currentPath();
  const auto* value = at(m_part, path);
  const bool inList =
      !path.empty() && at(m_part, Path(path.begin(), path.end() - 1)) && at(m_part, Path(path.begin(), path.end() - 1))->is_array();
  m_remove->setEnabled(!path.empty());
  m_up->setEnabled(inList);
  m_down->setEnabled(inList);
  if (value && !value->is_structured() && !path.empty()) path.pop_back();
  m_what->clear();
  const auto put = [&](const QString& text, const QString& kind, const std::string& what) {
    QStringList offered{kind, qs(what)};
    for (const auto& key : path) offered << qs(key);
    m_what->addItem(text, offered);
  };
  for (const auto& kind : parts::itemKinds(m_part, path))
    put(kind.empty() ? tr("another") : kind == "for" ? tr("several alike") : tr("a %1").arg(qs(kind)), "item", kind);
  if (parts::freelyNamed(m_part, path)) put(tr("another, named…"), "named", {});
  for (const auto& field : parts::missingFields(m_part, path)) put(tr("the field %1").arg(qs(field)), "field", field);
  m_add->setEnabled(m_what->count() > 0);
}

void FieldTree::add() {
  const auto offered = m_what->currentData().toStringList();
  if (offered.size() < 2) return;
  const auto kind = offered[0];
  auto what = offered[1].toStdString();
  Path path;
  for (int k = 2; k < offered.size(); ++k) path.push_back(offered[k].toStdString());
  auto* value = at(m_part, path);
  if (!value) return;
  if (kind == "item") {
    auto item = parts::blankItem(m_part, path, what);
    value->push_back(std::move(item));
    changed(below(path, std::to_string(value->size() - 1)));
    return;
  }
  if (kind == "named") {
    what = QInputDialog::getText(this, tr("Its name"), tr("Letters, digits, - and _")).trimmed().toStdString();
    if (what.empty() || value->contains(what)) return;
  }
  auto field = parts::blankField(m_part, path, what);
  (*value)[what] = std::move(field);
  changed(below(path, what));
}

void FieldTree::remove() {
  const auto path = currentPath();
  if (path.empty()) return;
  const Path outer(path.begin(), path.end() - 1);
  auto* holder = at(m_part, outer);
  if (!holder) return;
  if (const auto k = holder->is_array() ? positionIn(path.back(), holder->size()) : std::nullopt)
    holder->erase(*k);
  else if (holder->is_object())
    holder->erase(path.back());
  changed(outer);
}

void FieldTree::move(int by) {
  auto path = currentPath();
  if (path.empty()) return;
  auto* list = at(m_part, Path(path.begin(), path.end() - 1));
  if (!list || !list->is_array()) return;
  const int here = static_cast<int>(wholeOf(path.back()).value_or(-1));
  const int there = here + by;
  if (here < 0 || there < 0 || there >= static_cast<int>(list->size())) return;
  std::swap((*list)[here], (*list)[there]);
  path.back() = std::to_string(there);
  changed(path);
}

// A problem marks its field, or the nearest one around it that is there.
void FieldTree::mark(const std::vector<Problem>& problems) {
  m_filling = true;
  eachItem(m_tree->invisibleRootItem(), [&](QTreeWidgetItem* i) {
    const auto place = parts::pointer(pathOf(i));
    QStringList said;
    for (const auto& p : problems) {
      const auto hash = p.where.find('#');
      const auto where = hash == std::string::npos ? std::string() : p.where.substr(hash + 1);
      if (where == place || where.starts_with(place + "/")) said << qs(p.what);
    }
    for (const int column : {0, 1}) {
      i->setForeground(column, said.isEmpty() ? gui::palette().ink : gui::palette().stop);
      i->setToolTip(column, plainTip(said.join("\n")));
    }
  });
  m_filling = false;
}

}  // namespace bold::gui
