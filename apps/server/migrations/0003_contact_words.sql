CREATE TABLE "contact_words" (
	"contact_id" bigint PRIMARY KEY NOT NULL,
	"list_id" uuid NOT NULL,
	"words" text NOT NULL
);
--> statement-breakpoint
DROP INDEX "contacts_search";--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "is_indexed" boolean DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX "contact_words_trigrams" ON "contact_words" USING gin (words gin_trgm_ops);--> statement-breakpoint
INSERT INTO "contact_words" ("contact_id", "list_id", "words") SELECT "id", "list_id", "search" FROM "contacts";--> statement-breakpoint
UPDATE "batches" SET "is_indexed" = true;
--> statement-breakpoint
-- Room on each page: a contact that is placed anew then stays where its indexes point.
ALTER TABLE "contacts" SET (fillfactor = 75);
