ALTER TABLE "batches" ADD COLUMN "public_hosts" text[] DEFAULT '{}'::text[] NOT NULL;--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "street" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "birth_date" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "hand_slip" text DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX "contacts_hand_slip" ON "contacts" USING btree ("list_id","hand_slip","id") WHERE hand_slip <> '';--> statement-breakpoint
UPDATE "pairs" SET "key" = 'name-part' WHERE "key" IN ('local-part', 'sound-place', 'company-given');
