#ifndef BRIDGE_H
#define BRIDGE_H
class Bridge {
 public:
  Bridge(int en, int a, int b);
  void begin();
  void drive(int speed);
  void stop() { drive(0); }

 private:
  int _en, _a, _b;
};
#endif
