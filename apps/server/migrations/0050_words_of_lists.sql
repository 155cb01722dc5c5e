DROP TABLE "contact_words";--> statement-breakpoint
-- What the search looks in stands in a table for each list: made as the application starts, filled by its jobs.
CREATE SCHEMA "words";--> statement-breakpoint
UPDATE "batches" SET "is_indexed" = false WHERE "is_indexed";
