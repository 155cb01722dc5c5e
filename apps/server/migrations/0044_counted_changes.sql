ALTER TABLE "lists" ADD COLUMN "unsummed" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
-- Counts a change of a contact as it is made, where the transaction asks for that: the cube gets a line for the group it
-- has left and one for the group it came to, repairs likewise, and the contact is noted as touched.
CREATE FUNCTION count_contact_change() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  is_shown boolean := exists (SELECT 1 FROM batches b WHERE b.id = NEW.batch_id AND b.state = 'ready');
BEGIN
  INSERT INTO touched_contacts (list_id, id) VALUES (NEW.list_id, NEW.id);
  IF TG_OP = 'UPDATE' THEN
    IF ROW(OLD.batch_id, OLD.country, OLD.verdict, OLD.line_type, OLD.line_status, OLD.known_from, OLD.lane, OLD.lane_reason, OLD.email_kind, OLD.email_state, OLD.sureness, OLD.call_from, OLD.suppressed_for, OLD.is_readable, OLD.is_dead, OLD.is_filled, OLD.wants_mobile, OLD.is_shared, OLD.is_sent, OLD.joined_into is not null, OLD.joined > 0) IS DISTINCT FROM ROW(NEW.batch_id, NEW.country, NEW.verdict, NEW.line_type, NEW.line_status, NEW.known_from, NEW.lane, NEW.lane_reason, NEW.email_kind, NEW.email_state, NEW.sureness, NEW.call_from, NEW.suppressed_for, NEW.is_readable, NEW.is_dead, NEW.is_filled, NEW.wants_mobile, NEW.is_shared, NEW.is_sent, NEW.joined_into is not null, NEW.joined > 0) AND is_shown THEN
      INSERT INTO contact_cube (list_id, batch_id, country, verdict, line_type, line_status, known_from, lane, lane_reason, email_kind, email_state, sureness, call_from, suppressed_for, is_readable, is_dead, is_filled, wants_mobile, is_shared, is_sent, is_joined, has_joined, contacts)
      VALUES (OLD.list_id, OLD.batch_id, OLD.country, OLD.verdict, OLD.line_type, OLD.line_status, OLD.known_from, OLD.lane, OLD.lane_reason, OLD.email_kind, OLD.email_state, OLD.sureness, OLD.call_from, OLD.suppressed_for, OLD.is_readable, OLD.is_dead, OLD.is_filled, OLD.wants_mobile, OLD.is_shared, OLD.is_sent, OLD.joined_into is not null, OLD.joined > 0, -1), (NEW.list_id, NEW.batch_id, NEW.country, NEW.verdict, NEW.line_type, NEW.line_status, NEW.known_from, NEW.lane, NEW.lane_reason, NEW.email_kind, NEW.email_state, NEW.sureness, NEW.call_from, NEW.suppressed_for, NEW.is_readable, NEW.is_dead, NEW.is_filled, NEW.wants_mobile, NEW.is_shared, NEW.is_sent, NEW.joined_into is not null, NEW.joined > 0, 1);
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
    VALUES (NEW.list_id, NEW.batch_id, NEW.country, NEW.verdict, NEW.line_type, NEW.line_status, NEW.known_from, NEW.lane, NEW.lane_reason, NEW.email_kind, NEW.email_state, NEW.sureness, NEW.call_from, NEW.suppressed_for, NEW.is_readable, NEW.is_dead, NEW.is_filled, NEW.wants_mobile, NEW.is_shared, NEW.is_sent, NEW.joined_into is not null, NEW.joined > 0, 1);
    INSERT INTO tidy_counts (list_id, batch_id, code, contacts)
    SELECT NEW.list_id, NEW.batch_id, code, 1 FROM unnest(NEW.changes) AS code
    UNION ALL SELECT NEW.list_id, NEW.batch_id, 'hand', 1 WHERE NEW.hand > 0;
  END IF;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER contacts_counted AFTER INSERT OR UPDATE ON contacts FOR EACH ROW
WHEN (current_setting('upper_field.counting', true) = 'by-change') EXECUTE FUNCTION count_contact_change();
