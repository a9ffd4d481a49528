#include "core/harness/edit_maker.h"

namespace bold::harness {
namespace {

std::string stemOf(ConnectionKind kind) {
  return kind == ConnectionKind::Wire ? "w" : kind == ConnectionKind::Plug ? "p" : "j";
}

Connection between(ConnectionKind kind, const Address& a, const Address& b) {
  Connection c;
  c.kind = kind;
  c.a = a;
  c.b = b;
  return c;
}

}  // namespace

std::string EditMaker::freeId(const std::string& stem) {
  for (int n = 1;; ++n)
    if (auto id = stem + std::to_string(n); !m_taken->contains(id) && m_given.insert(id).second) return id;
}

std::string EditMaker::device(Device d, const std::string& stem) {
  if (d.id.empty()) d.id = freeId(stem);
  m_given.insert(d.id);
  d.state = m_state;
  auto id = d.id;
  m_edit.changes.emplace_back(Put<Device>{std::move(d), {}});
  return id;
}

EditMaker& EditMaker::add(Connection c) {
  c.id = freeId(stemOf(c.kind));
  c.state = m_state;
  c.raw = nullptr;
  m_edit.changes.emplace_back(Put<Connection>{std::move(c), {}});
  return *this;
}

EditMaker& EditMaker::wire(const Address& a, const Address& b, const std::string& colour, std::optional<int> gauge,
                           std::optional<Metres> length) {
  auto c = between(ConnectionKind::Wire, a, b);
  c.colour = colour;
  c.gauge = gauge;
  c.length = length;
  return add(std::move(c));
}

EditMaker& EditMaker::plug(const Address& a, const Address& b) {
  return add(between(ConnectionKind::Plug, a, b));
}

EditMaker& EditMaker::jumper(const Address& a, const Address& b) {
  return add(between(ConnectionKind::Jumper, a, b));
}

EditMaker& EditMaker::remove(const Connection& connection) {
  if (m_state == State::OnBench || connection.state == State::Planned) {  // what is only planned is not taken off
    m_edit.changes.emplace_back(Drop<Connection>{connection.id});
    return *this;
  }
  auto c = connection;
  c.state = State::ToBeRemoved;
  m_edit.changes.emplace_back(Put<Connection>{std::move(c), {}});
  return *this;
}

EditMaker& EditMaker::remove(Device device) {
  if (m_state == State::OnBench || device.state == State::Planned) {
    m_edit.changes.emplace_back(Drop<Device>{device.id});
    return *this;
  }
  device.state = State::ToBeRemoved;
  m_edit.changes.emplace_back(Put<Device>{std::move(device), {}});
  return *this;
}

EditMaker& EditMaker::move(const Connection& connection, const Address& a, const Address& b) {
  remove(connection);
  auto moved = connection;
  moved.a = a;
  moved.b = b;
  return add(std::move(moved));
}

EditMaker& EditMaker::setting(const Device& device, const std::string& id, const std::string& now, const std::string& value) {
  auto changed = device;
  changed.settings[id] = m_state == State::OnBench ? SettingValue{value, {}} : SettingValue{now, value};
  m_edit.changes.emplace_back(Put<Device>{std::move(changed), {}});
  return *this;
}

EditMaker& EditMaker::figure(const Device& device, const std::string& id, AnyQuantity value) {
  auto changed = device;
  for (const auto& c : m_edit.changes)  // what this edit has made of it
    if (const auto* put = c.as<Put<Device>>(); put && put->value.id == device.id) changed = put->value;
  changed.overrides[id] = displayText(value);
  m_edit.changes.emplace_back(Put<Device>{std::move(changed), {}});
  return *this;
}

Edit EditMaker::take(std::string title) const {
  auto edit = m_edit;
  edit.title = std::move(title);
  return edit;
}

}  // namespace bold::harness
