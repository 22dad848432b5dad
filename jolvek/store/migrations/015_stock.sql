-- What the shop has of a product, from whom, at what price; what is reserved for an accepted offer;
-- a customer's drawn signature.
CREATE TABLE stock (
  kind TEXT NOT NULL, product_id TEXT NOT NULL, supplier TEXT NOT NULL DEFAULT '',
  in_stock INTEGER NOT NULL DEFAULT 0 CHECK (in_stock >= 0),
  buying_minor INTEGER CHECK (buying_minor >= 0), PRIMARY KEY (kind, product_id)
) STRICT;
CREATE TABLE reservation (
  offer_id INTEGER NOT NULL REFERENCES offer (id) ON DELETE CASCADE, kind TEXT NOT NULL,
  product_id TEXT NOT NULL, quantity INTEGER NOT NULL CHECK (quantity > 0), at TEXT NOT NULL,
  PRIMARY KEY (offer_id, kind, product_id)
) STRICT;
CREATE INDEX reservation_of ON reservation (kind, product_id);
ALTER TABLE offer_event ADD COLUMN signature TEXT NOT NULL DEFAULT '';
