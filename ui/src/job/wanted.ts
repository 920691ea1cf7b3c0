/** What is asked for besides what was done: the amounts anew, the working of another zone, what others did. */
export class Wanted {
  /** The zone that is looked at; "" for the first. */
  zone = "";
  anything = false;
  private zoneAsked = "";
  private head = 0;

  /** Another zone is looked at: whether its working is still to come. */
  look(zone: string): boolean {
    this.zone = zone;
    return zone !== this.zoneAsked;
  }

  /** The job was opened: its first zone came with it where none was meant. */
  loaded(first: string): void {
    this.zoneAsked = this.zone || first;
  }

  /** The job is at a revision, as others say. It may be an earlier one: somebody undid something. */
  heard(revision: number): void {
    this.head = revision;
  }

  /** It is on its way. */
  begun(): void {
    Object.assign(this, { anything: false, head: 0, zoneAsked: this.zone });
  }

  /** It came, with the job at a revision: whether that is all there is. */
  came(revision: number): void {
    const moved = this.head !== 0 && this.head !== revision;
    this.anything ||= moved || this.zone !== this.zoneAsked;
  }
}
