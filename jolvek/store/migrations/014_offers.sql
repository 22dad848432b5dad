-- Offers: the draft of an enquiry, what was sent and never changes, the customer's link and
-- answers, and what waits to be mailed.
CREATE TABLE offer_draft (
  enquiry_id INTEGER PRIMARY KEY REFERENCES enquiry (id) ON DELETE CASCADE,
  data TEXT NOT NULL CHECK (json_valid(data))
) STRICT;
CREATE TABLE offer (
  id INTEGER PRIMARY KEY, enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  year INTEGER NOT NULL, serial INTEGER NOT NULL, revision INTEGER NOT NULL, sent_at TEXT NOT NULL,
  valid_to TEXT NOT NULL, sent_by TEXT NOT NULL, data TEXT NOT NULL CHECK (json_valid(data)),
  shop_data TEXT NOT NULL CHECK (json_valid(shop_data)), pdf BLOB NOT NULL,
  UNIQUE (year, serial, revision)
) STRICT;
CREATE INDEX offer_of ON offer (enquiry_id, id);
CREATE TABLE offer_link (
  token TEXT PRIMARY KEY, offer_id INTEGER NOT NULL REFERENCES offer (id) ON DELETE CASCADE,
  until TEXT NOT NULL, revoked INTEGER NOT NULL DEFAULT 0 CHECK (revoked IN (0, 1)),
  opened_at TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE TABLE offer_event (
  id INTEGER PRIMARY KEY, offer_id INTEGER NOT NULL REFERENCES offer (id) ON DELETE CASCADE,
  at TEXT NOT NULL, kind TEXT NOT NULL CHECK (kind IN ('asked', 'accepted', 'declined')),
  who TEXT NOT NULL, text TEXT NOT NULL, letter TEXT NOT NULL DEFAULT '',
  ticked TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(ticked)), seen_by TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE INDEX offer_event_of ON offer_event (offer_id, id);
CREATE TABLE outbox (
  id INTEGER PRIMARY KEY, offer_id INTEGER REFERENCES offer (id) ON DELETE SET NULL,
  at TEXT NOT NULL, recipient TEXT NOT NULL, mail BLOB NOT NULL, written_at TEXT NOT NULL DEFAULT ''
) STRICT;
