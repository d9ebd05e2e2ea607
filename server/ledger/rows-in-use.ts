// Each compares the book as well: by a chapter's id alone MariaDB may begin with the chapters of all books.

/** The links, called `u`, of chapters, called `c`, that are not deleted. */
export const linksInUse =
  "link_use u JOIN chapter c ON c.id = u.chapterId AND c.bookId = u.bookId AND c.deletedAt IS NULL";

/** The places, called `p`, of chapters, called `c`, that are not deleted. */
export const placesInUse =
  "place p JOIN chapter c ON c.id = p.chapterId AND c.bookId = p.bookId AND c.deletedAt IS NULL";

/**
 * To links called `u` what came of asking where they lead, called `o`: its state and when it was asked, which an index tells
 * without the rest that is known.
 */
export const withOutcomes =
  "LEFT JOIN reach_outcome o FORCE INDEX (IDX_reach_outcome_known) ON o.bookId = u.bookId AND o.destinationHash = u.destinationHash";
