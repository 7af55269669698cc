// The yardstick for `coulter render`: a process that does nothing.
int main() { return 0; }
