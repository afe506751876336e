// Whether this device still has to give the passphrase of the shop. What was typed stays where it is meanwhile.
class Gate {
  locked = $state(false);
}
export const gate = new Gate();
