import { statfs } from "node:fs/promises";
import { tmpdir } from "node:os";
import { Injectable } from "@nestjs/common";
import { noRoom } from "../errors/problem.ts";
import { Settings } from "../settings.ts";

/** How much room a disk has, in bytes. */
export interface Room {
  free: number;
  total: number;
}

/**
 * Keeps a reserve on the disks: what is large is refused before they are full, so that there is still room for the
 * words that authors type, and the database never has to give up.
 */
@Injectable()
export class DiskRoom {
  constructor(private readonly settings: Settings) {}

  /** The room of the disk with the least of it: the one for files on their way, or the database's where it is told. */
  async least(): Promise<Room> {
    const { dataFolder } = this.settings;
    const rooms = await Promise.all([tmpdir(), ...(dataFolder ? [dataFolder] : [])].map(roomOf));
    return rooms.reduce((least, room) => (room.free < least.free ? room : least));
  }

  /**
   * Makes sure that so many bytes more leave the reserve alone.
   * @throws Problem `no-room` where they do not
   */
  async assertRoom(bytes: number): Promise<void> {
    const { free } = await this.least();
    if (free - bytes < this.settings.diskReserveBytes) throw noRoom();
  }
}

async function roomOf(folder: string): Promise<Room> {
  const { bavail, blocks, bsize } = await statfs(folder);
  return { free: bavail * bsize, total: blocks * bsize };
}
