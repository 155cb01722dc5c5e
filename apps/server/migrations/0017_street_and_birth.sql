ALTER TABLE "contacts" ADD COLUMN "street" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "birth_date" text DEFAULT '' NOT NULL;--> statement-breakpoint
UPDATE "pairs" SET "key" = 'name-part' WHERE "key" IN ('local-part', 'sound-place', 'company-given');
