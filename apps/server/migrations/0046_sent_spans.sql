-- Who is in a file, and who was ever sent, are sets of contacts: a bit for each id of a span. Noting a million took longer
-- than writing their file while each was a line, and a change of a wide one.
CREATE TABLE "sent_contacts" (
	"span" integer PRIMARY KEY NOT NULL,
	"bits" bit(8192) NOT NULL
);
--> statement-breakpoint
INSERT INTO sent_contacts (span, bits)
SELECT (id / 8192)::int, bit_or(set_bit(repeat('0', 8192)::bit(8192), (id % 8192)::int, 1)) FROM contacts WHERE is_sent GROUP BY 1;--> statement-breakpoint
ALTER TABLE "edition_members" RENAME TO "edition_members_one_by_one";--> statement-breakpoint
CREATE TABLE "edition_members" (
	"edition_id" uuid NOT NULL,
	"span" integer NOT NULL,
	"bits" bit(8192) NOT NULL,
	CONSTRAINT "edition_members_edition_id_span_pk" PRIMARY KEY("edition_id","span")
);
--> statement-breakpoint
INSERT INTO edition_members (edition_id, span, bits)
SELECT edition_id, (contact_id / 8192)::int, bit_or(set_bit(repeat('0', 8192)::bit(8192), (contact_id % 8192)::int, 1))
FROM edition_members_one_by_one GROUP BY 1, 2;--> statement-breakpoint
DROP TABLE "edition_members_one_by_one";--> statement-breakpoint
CREATE INDEX "edition_members_span" ON "edition_members" USING btree ("span");--> statement-breakpoint
CREATE OR REPLACE FUNCTION count_contact_change() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  is_shown boolean := exists (SELECT 1 FROM batches b WHERE b.id = NEW.batch_id AND b.state = 'ready');
  is_sent boolean := exists (SELECT 1 FROM sent_contacts s WHERE s.span = NEW.id / 8192 AND get_bit(s.bits, (NEW.id % 8192)::int) = 1);
BEGIN
  INSERT INTO touched_contacts (list_id, id) VALUES (NEW.list_id, NEW.id);
  IF TG_OP = 'UPDATE' THEN
    IF ROW(OLD.batch_id, OLD.country, OLD.verdict, OLD.line_type, OLD.line_status, OLD.known_from, OLD.lane, OLD.lane_reason, OLD.email_kind, OLD.email_state, OLD.sureness, OLD.call_from, OLD.suppressed_for, OLD.is_readable, OLD.is_dead, OLD.is_filled, OLD.wants_mobile, OLD.is_shared, OLD.joined_into is not null, OLD.joined > 0) IS DISTINCT FROM ROW(NEW.batch_id, NEW.country, NEW.verdict, NEW.line_type, NEW.line_status, NEW.known_from, NEW.lane, NEW.lane_reason, NEW.email_kind, NEW.email_state, NEW.sureness, NEW.call_from, NEW.suppressed_for, NEW.is_readable, NEW.is_dead, NEW.is_filled, NEW.wants_mobile, NEW.is_shared, NEW.joined_into is not null, NEW.joined > 0) AND is_shown THEN
      INSERT INTO contact_cube (list_id, batch_id, country, verdict, line_type, line_status, known_from, lane, lane_reason, email_kind, email_state, sureness, call_from, suppressed_for, is_readable, is_dead, is_filled, wants_mobile, is_shared, is_sent, is_joined, has_joined, contacts)
      VALUES (OLD.list_id, OLD.batch_id, OLD.country, OLD.verdict, OLD.line_type, OLD.line_status, OLD.known_from, OLD.lane, OLD.lane_reason, OLD.email_kind, OLD.email_state, OLD.sureness, OLD.call_from, OLD.suppressed_for, OLD.is_readable, OLD.is_dead, OLD.is_filled, OLD.wants_mobile, OLD.is_shared, is_sent, OLD.joined_into is not null, OLD.joined > 0, -1), (NEW.list_id, NEW.batch_id, NEW.country, NEW.verdict, NEW.line_type, NEW.line_status, NEW.known_from, NEW.lane, NEW.lane_reason, NEW.email_kind, NEW.email_state, NEW.sureness, NEW.call_from, NEW.suppressed_for, NEW.is_readable, NEW.is_dead, NEW.is_filled, NEW.wants_mobile, NEW.is_shared, is_sent, NEW.joined_into is not null, NEW.joined > 0, 1);
    END IF;
    IF is_shown AND (OLD.changes, OLD.hand > 0) IS DISTINCT FROM (NEW.changes, NEW.hand > 0) THEN
      INSERT INTO tidy_counts (list_id, batch_id, code, contacts)
      SELECT OLD.list_id, OLD.batch_id, code, -1 FROM unnest(OLD.changes) AS code
      UNION ALL SELECT OLD.list_id, OLD.batch_id, 'hand', -1 WHERE OLD.hand > 0
      UNION ALL SELECT NEW.list_id, NEW.batch_id, code, 1 FROM unnest(NEW.changes) AS code
      UNION ALL SELECT NEW.list_id, NEW.batch_id, 'hand', 1 WHERE NEW.hand > 0;
    END IF;
  ELSIF is_shown THEN
    INSERT INTO contact_cube (list_id, batch_id, country, verdict, line_type, line_status, known_from, lane, lane_reason, email_kind, email_state, sureness, call_from, suppressed_for, is_readable, is_dead, is_filled, wants_mobile, is_shared, is_sent, is_joined, has_joined, contacts)
    VALUES (NEW.list_id, NEW.batch_id, NEW.country, NEW.verdict, NEW.line_type, NEW.line_status, NEW.known_from, NEW.lane, NEW.lane_reason, NEW.email_kind, NEW.email_state, NEW.sureness, NEW.call_from, NEW.suppressed_for, NEW.is_readable, NEW.is_dead, NEW.is_filled, NEW.wants_mobile, NEW.is_shared, is_sent, NEW.joined_into is not null, NEW.joined > 0, 1);
    INSERT INTO tidy_counts (list_id, batch_id, code, contacts)
    SELECT NEW.list_id, NEW.batch_id, code, 1 FROM unnest(NEW.changes) AS code
    UNION ALL SELECT NEW.list_id, NEW.batch_id, 'hand', 1 WHERE NEW.hand > 0;
  END IF;
  RETURN NULL;
END $$;--> statement-breakpoint
ALTER TABLE "contacts" DROP COLUMN "is_sent";--> statement-breakpoint
-- Hashes do not become smaller, and to try takes longer than to store them.
ALTER TABLE "edition_pieces" ALTER COLUMN "bytes" SET STORAGE EXTERNAL;
